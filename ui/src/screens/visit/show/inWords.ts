import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

/** A posture reading without the words of the trade; small differences that only
 * the practice needs are left out. */
function inWords(p: Schemas["Posture"], flagged: boolean, limit: (id: string) => number): string[] {
  const deg = Math.abs(p.degrees ?? 0).toFixed(1);
  switch (p.measure) {
    case "shoulder-height":
      return p.degrees ? [`Your ${p.high_side} shoulder stands higher, by ${deg}°.`] : [];
    case "pelvis-height":
      return p.degrees ? [`Your ${p.high_side} side of the pelvis stands higher, by ${deg}°.`] : [];
    case "craniovertebral-angle":
      return flagged ? ["Your head stands in front of your shoulders."] : [];
    case "pelvic-tilt": {
      const off = (p.degrees ?? 0) - limit("pelvic-tilt-usual");
      return Math.abs(off) > limit("pelvic-tilt")
        ? [`Your pelvis tips ${off > 0 ? "forward" : "back"} on the ${p.side}.`]
        : [];
    }
    case "shoulder-girdle-rotation":
      return p.high_side ? [`Your ${p.high_side} shoulder stands forward.`] : [];
    case "pelvis-rotation":
      return p.high_side ? [`Your pelvis is turned: the ${p.high_side} side stands forward.`] : [];
    case "side-curve":
      return p.high_side ? [`Your back curves toward the ${p.high_side}.`] : [];
    case "lumbar-curve":
      return p.kind === "hinge" ? ["Your low back bends at one place, not evenly."] : [];
  }
  return [];
}

/** What was found in standing, a sentence each. */
export function stanceOf({ state, open, core }: LiveVisit): string[] {
  const limit = (id: string) =>
    open.context.thresholds[id] ?? core.lists.thresholds.find((t) => t.id === id)?.value ?? 0;
  return state.posture.flatMap((p, i) => inWords(p, state.posture_flags[i]?.flagged ?? false, limit));
}

/** The names of the signs that were seen, each once. */
export function seenSigns({ state, core }: LiveVisit): string[] {
  const names = state.signs.map(
    (x) => core.lists.signs.find((s) => s.sign === x.sign)?.name.toLowerCase() ?? "",
  );
  return [...new Set(names)].filter(Boolean);
}
