// Beginning a hold: its plan and limits resolved for the place, what is chosen,
// and the core's last word before anything is written.
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../../api/client";
import type { Bodies } from "../../../core/events";
import { uuidv7 } from "../../../core/ids";
import { useAsk } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";
import { type HoldChoice, missing } from "./choice";
import { offerNow } from "./useOffers";

/** What the core is asked for a hold's plan and limits. */
function holdRequest(
  { state, open }: LiveVisit,
  p: Schemas["Point"],
  protocol: Schemas["ProtocolID"],
  copy: string | undefined,
) {
  const own = copy ? open.own_protocols?.[copy] : undefined;
  const tuned = own && own.protocol === protocol ? { name: own.name, numbers: own.numbers } : {};
  return {
    request: { protocol, muscle: p.muscle, side: p.side, ...tuned },
    limits: state.screening.limits,
    where: p.where,
  };
}

/** Begins a hold, by the core's answer of this moment: what shows may still be of the question
 * before. aside is why the core would set it aside; nothing is written then. */
export async function beginHold(
  visit: LiveVisit,
  p: Schemas["Point"],
  protocol: Schemas["ProtocolID"],
  { contact, position, muscle_set, under, own }: HoldChoice,
  student: boolean,
): Promise<{ hold: string } | { aside: string }> {
  const { start, why = "" } = await visit.core.ask("hold-start", holdRequest(visit, p, protocol, own));
  if (!start) return { aside: why };
  const hold = uuidv7();
  const body: Bodies["hold-started"] = {
    hold,
    point: p.point,
    start,
    contact,
    position,
    ...(muscle_set ? { muscle_set } : {}),
    ...(student ? { under } : {}),
  };
  const aside = await visit.preview("hold-started", body);
  if (aside) return { aside };
  visit.write("hold-started", body);
  return { hold };
}

export interface Begin {
  /** Absent where the protocol cannot be done here; why says so. */
  start?: Schemas["Start"];
  why: string;
  begin: () => Promise<void>;
  /** Why the core would set the hold aside. */
  refused: string;
  /** What is still to be chosen. */
  lacks: string;
}

export function useBegin(
  visit: LiveVisit,
  p: Schemas["Point"],
  protocol: Schemas["ProtocolID"] | undefined,
  chosen: HoldChoice,
  student: boolean,
): Begin {
  const { core, state, open } = visit;
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const asked = protocol && holdRequest(visit, p, protocol, chosen.own);
  const { start, why = "" } = useAsk(core, "hold-start", asked) ?? {};
  const begin = async () => {
    if (!protocol) return;
    const offer = await offerNow(visit, p.point);
    const by = offer?.protocol ?? protocol;
    // Another protocol may want the muscle set otherwise, and has copies of its own.
    const choice = by === protocol ? chosen : { ...chosen, muscle_set: offer?.muscle_set, own: undefined };
    const begun = await beginHold(visit, p, by, choice, student);
    setRefused("aside" in begun ? begun.aside : "");
    if ("hold" in begun) go(`/visits/${open.visit.id}/hold/${begun.hold}`);
  };
  const lacks = missing(chosen, student, !!state.screening.limits.slack_or_broad);
  return { start, why, begin, refused, lacks };
}
