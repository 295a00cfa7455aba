// What a hold is begun with: contact, position, how the muscle is set, and under whom a
// student presses. The core's offer stands there first, then what was chosen last at this
// point, then what is chosen now.
import { useState } from "react";
import type { Schemas } from "../../../api/client";

export interface HoldChoice {
  contact?: Schemas["ContactID"];
  position?: Schemas["PositionID"];
  muscle_set?: "tension" | "slack";
  under?: string;
  /** The practice's own copy of the protocol, by id. */
  own?: string;
}

type Point = Schemas["Point"];

/** What the therapist chose before, in this visit. */
function before(holds: Schemas["Hold"][], p: Point, protocol?: Schemas["ProtocolID"]): HoldChoice {
  const here = holds.findLast((h) => h.point === p.point);
  const latest = holds.at(-1);
  const may = <T extends string>(list: Schemas["Choice"][], id?: T) =>
    list.some((c) => c.id === id && !c.why) ? id : undefined;
  return {
    contact: may(p.contacts, here?.contact),
    position: may(p.positions, here?.position),
    // Another protocol may want the muscle set otherwise.
    muscle_set: (here?.start.protocol === protocol
      ? here?.muscle_set
      : undefined) as HoldChoice["muscle_set"],
    under: latest?.under,
  };
}

/** What the core offers for a point: its site, the protocol, the plan, what the screening leaves. */
const offered = (o: Schemas["Offer"] | undefined): HoldChoice =>
  o
    ? {
        ...(o.contact ? { contact: o.contact } : {}),
        ...(o.position ? { position: o.position } : {}),
        ...(o.muscle_set ? { muscle_set: o.muscle_set } : {}),
      }
    : {};

/** Of two, what the second says. */
function over(a: HoldChoice, b: HoldChoice): HoldChoice {
  const said = Object.entries(b).filter(([, v]) => v !== undefined);
  return { ...a, ...Object.fromEntries(said) };
}

/** What a hold would begin with by one touch. */
export const choiceOf = (
  holds: Schemas["Hold"][],
  p: Point,
  protocol?: Schemas["ProtocolID"],
  offer?: Schemas["Offer"],
): HoldChoice => over(offered(offer), before(holds, p, protocol));

export function useHoldChoice(
  holds: Schemas["Hold"][],
  p: Point,
  protocol?: Schemas["ProtocolID"],
  offer?: Schemas["Offer"],
) {
  const [own, setOwn] = useState<HoldChoice>({});
  const chosen = over(choiceOf(holds, p, protocol, offer), own);
  return { chosen, choose: (c: HoldChoice) => setOwn((said) => ({ ...said, ...c })) };
}

/** What is still to be chosen, in words; empty when a hold may begin. */
export function missing(c: HoldChoice, student: boolean, slackOrBroad: boolean): string {
  const open = [
    !c.contact && "a contact",
    !c.position && "a position",
    slackOrBroad && !c.muscle_set && "tension or slack",
    student && !c.under && "who countersigns",
  ].filter(Boolean);
  return open.length ? `Choose ${new Intl.ListFormat("en").format(open as string[])}.` : "";
}
