// What the body is looked at for at each step, as the core asks it to choose the view.
import { useRef } from "react";
import type { Schemas } from "../../../api/client";
import { paintedOn } from "../../../body/drawing";
import type { LiveVisit } from "../../../core/useVisit";
import type { Path } from "../steps";
import type { useAiming } from "./useAiming";
import type { useAnswer } from "./useAnswer";
import type { usePainting } from "./usePainting";

interface On {
  aiming: ReturnType<typeof useAiming>;
  answering: ReturnType<typeof useAnswer>;
  painting: ReturnType<typeof usePainting>;
  earlier: Schemas["FoundPoint"][];
  likeliest: Schemas["Suspect"] | undefined;
}

type Asked = Schemas["ViewsIn"];

export function useWanted({ state }: LiveVisit, { step }: Path, on: On): Asked {
  const { aiming, answering, painting, earlier, likeliest } = on;
  // A view does not turn away under the hand that paints: what is painted counts as it was when
  // the step was opened.
  const painted = useAtArrival(step, painting.drawing, paintedOn);
  const { aim, chosen } = aiming;
  const shown = state.points.find((p) => p.point === aiming.selected);
  const of = (c: { muscle: Schemas["MuscleID"]; side: Schemas["Side"] }): Asked => ({
    muscle: c.muscle,
    side: c.side,
  });
  const points = state.points.map((p) => p.view);
  switch (step) {
    case "draw":
      return painted.length ? { painted } : { anywhere: true };
    case "screen":
    case "measure":
      return { anywhere: true };
    case "last":
      return { points: earlier.map((p) => p.view), painted };
    case "suspect": {
      const likely = likeliest && likeliest.confidence > 0.1 ? likeliest : undefined;
      const told = chosen ?? likely;
      return told ? of(told) : { painted };
    }
    case "find":
      if (answering.saying) return { anywhere: true };
      if (aim) return { aim: aim.view };
      if (shown) return { points: [shown.view] };
      return chosen ? of(chosen) : { points, painted };
    default:
      return shown ? { points: [shown.view] } : { points, painted };
  }
}

/** A value as it was when the key last changed. */
function useAtArrival<V, T>(key: string, value: V, of: (v: V) => T): T {
  const kept = useRef<{ key: string; of: T }>(undefined);
  if (kept.current?.key !== key) kept.current = { key, of: of(value) };
  return kept.current.of;
}
