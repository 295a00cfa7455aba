// What a steady reading of the inclinometer says of a posture measure.
import type { Schemas } from "../../../api/client";
import type { Draft } from "./draft";
import type { Measure } from "./measures";

export type ReadSide = "left" | "right";

export function steadyDraft(
  m: Measure,
  t: Schemas["SteadyReading"],
  side: ReadSide | undefined,
): { draft: Draft; side: ReadSide | undefined } {
  if (m.how === "cm-side") return { draft: { cm: t.distance_cm }, side };
  const draft = { slope: Math.abs(t.deg) };
  // Its right end up reads positive: on the client's back that is the right side.
  if (m.how === "slope-high") return { draft, side: t.deg < 0 ? "left" : "right" };
  // Which way it leans depends on the side it is held from; the usual way is meant.
  return { draft, side };
}
