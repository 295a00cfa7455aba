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
}

type Point = Schemas["Point"];

/** What the therapist chose before, in this visit. */
function before(holds: Schemas["Hold"][], p: Point): HoldChoice {
  const here = holds.findLast((h) => h.point === p.point);
  const latest = holds.at(-1);
  const may = <T extends string>(list: Schemas["Choice"][], id?: T) =>
    list.some((c) => c.id === id && !c.why) ? id : undefined;
  return {
    contact: may(p.contacts, here?.contact),
    position: may(p.positions, here?.position ?? latest?.position),
    muscle_set: here?.muscle_set as HoldChoice["muscle_set"],
    under: latest?.under,
  };
}

export function useHoldChoice(holds: Schemas["Hold"][], p: Point) {
  const [own, setOwn] = useState<HoldChoice>({});
  const chosen = { ...before(holds, p), ...own };
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
