// A step that is a protocol is run by the hold screen, where its point is charted: begun with the
// step, and back in the sequence when it has ended. Without a point it is timed as any other step.
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import type { LiveVisit } from "../../core/useVisit";
import { beginHold } from "../visit/press/useBegin";
import type { Running } from "./useRun";

type Step = Schemas["StepRun"];

/** The point that a step of a protocol presses or lengthens. */
function pointOf({ points }: Schemas["State"], s: Step) {
  const [muscle] = s.where.split(":");
  return (
    points.find((p) => p.point === s.point) ?? points.find((p) => p.muscle === muscle && p.side === s.side)
  );
}

export function useStepHold(visit: LiveVisit, run: Schemas["Run"], r: Running, me: Schemas["Me"]): string {
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const begun = useRef("");
  const { step, hand } = r;
  const latest = useRef({ visit, hand, go });
  latest.current = { visit, hand, go };
  const stamp = step?.protocol && step.began_ms ? `${run.run} ${r.at} ${step.began_ms}` : "";
  useEffect(() => {
    if (!stamp || !step?.protocol || begun.current === stamp) return;
    begun.current = stamp;
    const { visit: v, hand: over, go: to } = latest.current;
    const point = pointOf(v.state, step);
    if (!point) return;
    const held = v.state.holds.find(
      (h) => h.point === point.point && h.started_ms >= (step.began_ms ?? 0) && h.status !== "aside",
    );
    if (held && held.status !== "live") {
      over();
      return;
    }
    const open = (hold: string) => void to(`/visits/${v.open.visit.id}/hold/${hold}?run=${run.run}`);
    if (held) return open(held.id);
    const { contact, position } = step;
    void beginHold(v, point, step.protocol, { contact, position }, me.supervised).then((b) =>
      "hold" in b ? open(b.hold) : setRefused(b.aside),
    );
  }, [stamp, step, run.run, me.supervised]);
  return refused;
}
