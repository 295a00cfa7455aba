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
  const { core, state, write, preview, open } = visit;
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const own = chosen.own ? open.own_protocols?.[chosen.own] : undefined;
  const tuned = own && own.protocol === protocol ? { name: own.name, numbers: own.numbers } : {};
  const asked = protocol && {
    request: { protocol, muscle: p.muscle, side: p.side, ...tuned },
    limits: state.screening.limits,
    where: p.where,
  };
  const { start, why = "" } = useAsk(core, "hold-start", asked) ?? {};
  const begin = async () => {
    if (!asked) return;
    // What shows may still be of the question before.
    const { start } = await core.ask("hold-start", asked);
    if (!start) return;
    const hold = uuidv7();
    const { contact, position, muscle_set, under } = chosen;
    const body: Bodies["hold-started"] = {
      hold,
      point: p.point,
      start,
      contact,
      position,
      ...(muscle_set ? { muscle_set } : {}),
      ...(student ? { under } : {}),
    };
    const aside = await preview("hold-started", body);
    setRefused(aside);
    if (aside) return;
    write("hold-started", body);
    go(`/visits/${open.visit.id}/hold/${hold}`);
  };
  const lacks = missing(chosen, student, !!state.screening.limits.slack_or_broad);
  return { start, why, begin, refused, lacks };
}
