// What is read of a posture, and how.
import type { Schemas } from "../../../api/client";
import { listed, one } from "../../../parts/words";
import { lengthWords, type UnitPreferences } from "../../../parts/unitPreferences";

export interface Measure {
  name: string;
  how: "slope-high" | "slope-side" | "cm-side" | "deg" | "which" | "curve";
  /** About what the stand-in inclinometer shows. */
  usual?: { deg: number; cm?: number };
}

/** How each measure is read: a slope with a high side, a slope or a distance
 * on each side, or only which side. */
export const measures: Record<string, Measure> = {
  "shoulder-height": {
    name: "Shoulder height, acromion to acromion",
    how: "slope-high",
    usual: { deg: 4, cm: 36 },
  },
  "pelvis-height": { name: "Pelvis height, crest to crest", how: "slope-high", usual: { deg: 3, cm: 28 } },
  "pelvic-tilt": { name: "Pelvic tilt, PSIS to ASIS", how: "slope-side", usual: { deg: 12, cm: 15 } },
  "scapula-distance": { name: "Blade's border to spine", how: "cm-side", usual: { deg: 1, cm: 8 } },
  "scapular-upward-rotation": {
    name: "Scapular upward rotation",
    how: "slope-side",
    usual: { deg: 6, cm: 12 },
  },
  "craniovertebral-angle": { name: "Forward head, tragus to C7", how: "deg", usual: { deg: 50, cm: 14 } },
  "shoulder-girdle-rotation": { name: "Shoulder girdle rotation", how: "which" },
  "pelvis-rotation": { name: "Pelvis turned", how: "which" },
  "side-curve": { name: "Sideways curve", how: "which" },
  "lumbar-curve": { name: "Curve of the low back", how: "curve" },
  "acromion-to-table": {
    name: "Acromion-to-table distance, supine",
    how: "cm-side",
    usual: { deg: 1, cm: 6 },
  },
};

/** A reading in words, with the side that is high, forward or convex. */
export function valueOf(p: Schemas["Posture"], w: UnitPreferences) {
  const side = p.high_side && `${p.high_side} ${whatOfSide(p.measure)}`;
  return listed(readOf(p, w), side) || "none";
}

function readOf(p: Schemas["Posture"], w: UnitPreferences) {
  if (p.degrees !== undefined) return `${one(p.degrees)}°`;
  return p.cm === undefined ? p.kind : lengthWords(p.cm, w);
}

/** What the named side is. */
function whatOfSide(measure: string) {
  if (measure.includes("rotation")) return "forward";
  return measure === "side-curve" ? "convex" : "high";
}

/** "flagged from 3°", "noted, flagged from 3°", "flagged: sides differ by 2 cm …". */
export function judged(f: Schemas["PostureFlag"]) {
  if (f.reason === "noted") return "noted";
  if (!f.flagged) return `noted, ${f.reason}`;
  return f.reason.startsWith("flagged") ? f.reason : `flagged: ${f.reason}`;
}

/** Read on each side, one after the other. */
export const ofSides = (m: Measure) => m.how.endsWith("-side");
/** Read as a slope. */
export const slopes = (m: Measure) => m.how === "slope-high" || m.how === "slope-side" || m.how === "deg";
/** Readable by the inclinometer. */
export const readable = (m: Measure) => m.how !== "which" && m.how !== "curve";
