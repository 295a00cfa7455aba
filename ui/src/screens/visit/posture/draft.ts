// A posture reading in the making.
import type { Schemas } from "../../../api/client";
import type { Core } from "../../../core/core";
import { type Measure, ofSides, slopes } from "./measures";

export interface Draft {
  distance?: number;
  height?: number;
  slope?: number;
  cm?: number;
  kind?: Schemas["Posture"]["kind"];
}

type ReadSide = "left" | "right";

/** The reading, or what it still lacks. */
export async function readingOf(
  core: Core,
  measure: string,
  m: Measure,
  v: Draft,
  side: ReadSide | undefined,
): Promise<{ reading: Schemas["PostureRead"] } | { lacks: string }> {
  const degrees = slopes(m) ? await degreesOf(core, v) : undefined;
  if (typeof degrees === "string") return { lacks: degrees };
  if ((m.how === "slope-high" || m.how === "which" || ofSides(m)) && !side)
    return { lacks: ofSides(m) ? "Which side was read?" : "Which side is high, or forward?" };
  if (m.how === "cm-side" && v.cm === undefined) return { lacks: "The distance in cm is missing." };
  return {
    reading: {
      measure: measure as Schemas["PostureRead"]["measure"],
      ...(ofSides(m) ? { side } : side ? { high_side: side } : {}),
      ...(degrees === undefined ? {} : { degrees: Math.round(degrees * 100) / 100 }),
      ...(m.how === "cm-side" ? { cm: v.cm } : {}),
      ...(m.how === "curve" ? { kind: v.kind ?? "usual" } : {}),
    },
  };
}

/** The slope, given or computed; else what is wrong. */
async function degreesOf(core: Core, v: Draft): Promise<number | string> {
  const given = [v.distance, v.height, v.slope].filter((x) => x !== undefined).length;
  if (given === 1 && v.slope !== undefined) return v.slope;
  try {
    const { distance, height, slope } = v;
    const asked = { distance_cm: distance, height_difference_cm: height, slope_deg: slope };
    return (await core.ask("slope", asked)).slope_deg;
  } catch (e) {
    return given === 2
      ? (e as Error).message
      : "Give the slope, or any two of distance, height difference and slope.";
  }
}
