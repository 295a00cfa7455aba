// What is chosen before a hold: with what, how the client lies, how the muscle
// is set, and under whom a student presses. Nothing is written that nobody
// chose; what was chosen last at this point, or this table, is offered again.
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
    position: may(p.positions, here?.position ?? latest?.position),
    // Another protocol may want the muscle set otherwise.
    muscle_set: (here?.start.protocol === protocol
      ? here?.muscle_set
      : undefined) as HoldChoice["muscle_set"],
    under: latest?.under,
  };
}

/** What suits this point, by its site, the protocol and what the screening leaves:
 * one touch takes it over. */
export function suggested(p: Point, s: Schemas["PointSuggestion"]): HoldChoice {
  const free = (list: Schemas["Choice"][]) => list.filter((c) => !c.why).map((c) => c.id);
  const contacts = free(p.contacts);
  const contact = s.contact.find((c) => contacts.includes(c)) ?? contacts[0];
  return {
    contact: contact as HoldChoice["contact"],
    position: free(p.positions)[0] as HoldChoice["position"],
    muscle_set: s.muscle_set,
  };
}

export function useHoldChoice(holds: Schemas["Hold"][], p: Point, protocol?: Schemas["ProtocolID"]) {
  const [own, setOwn] = useState<HoldChoice>({});
  const chosen = { ...before(holds, p, protocol), ...own };
  return { chosen, choose: (c: HoldChoice) => setOwn({ ...own, ...c }) };
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
