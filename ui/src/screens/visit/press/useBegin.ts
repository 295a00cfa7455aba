// Beginning a hold: its limits resolved for the place, what is chosen, and the
// core's last word before anything is written.
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../../api/client";
import type { Bodies } from "../../../core/events";
import { uuidv7 } from "../../../core/ids";
import type { LiveVisit } from "../../../core/useVisit";
import { type HoldChoice, missing } from "./choice";

export function useBegin(visit: LiveVisit, p: Schemas["Point"], chosen: HoldChoice, student: boolean) {
  const { state, core, write, preview, open } = visit;
  const go = useNavigate();
  /** Why the core would set the hold aside. */
  const [refused, setRefused] = useState("");
  const request = { protocol: "graded-stages", muscle: p.muscle, side: p.side } as const;
  const { start } = core.begin(request, state.screening.limits, p.where);
  const begin = () => {
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
    const why = preview("hold-started", body);
    setRefused(why);
    if (why) return;
    write("hold-started", body);
    go(`/visits/${open.visit.id}/hold/${hold}`);
  };
  return { start, begin, refused, lacks: missing(chosen, student, !!state.screening.limits.slack_or_broad) };
}
