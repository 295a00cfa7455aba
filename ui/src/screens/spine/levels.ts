// Levels of the spine, the landmarks that mark them, and what lies beside one.
import type { Schemas } from "../../api/client";
import { useAskAll } from "../../core/useAsk";
import type { Core } from "../../core/core";

/** Landmarks that mark a level, in words of the hand. */
export const landmarks: { id: string; name: string }[] = [
  { id: "suboccipital-hollow", name: "Hollow below the skull" },
  { id: "first-spinous-below-occiput", name: "First tip below it" },
  { id: "scapula-spine-root", name: "Inner end of the blade's ridge" },
  { id: "scapula-inferior-angle", name: "Lower angle of the blade" },
  { id: "crest-scapula-midpoint", name: "Half-way, angle to crest" },
  { id: "iliac-crest", name: "Crest line" },
  { id: "above-sacral-hollow", name: "First bone above the sacral hollow" },
  { id: "psis", name: "Posterior iliac spine" },
];
export const levels = "C1 C2 C3 C4 C5 C6 C7 T1 T2 T3 T4 T5 T6 T7 T8 T9 T10 T11 T12 L1 L2 L3 L4 L5 S2".split(
  " ",
);
/** Finger-widths out and down from the tip. */
const spots: [number, number, string][] = [
  [0, 0, "On the tip"],
  [1, 0, "One finger out"],
  [1, 1, "One out, one down"],
  [2, 0, "Two fingers out"],
  [3, 0, "Three fingers out"],
];

/** Until a therapist has measured their own. */
export const usualFingerCM = 1.8;

export interface Beside {
  out: number;
  down: number;
  name: string;
  at: Schemas["LevelOut"];
}

/** What lies beside a level, by finger-widths. */
export function useBeside(core: Core, level: Schemas["LevelIn"]["level"], finger_cm: number): Beside[] {
  const asked = spots.map(([out, down, name]): [string, Schemas["LevelIn"]] => [
    name,
    { level, fingers_lateral: out, fingers_down: down, finger_cm },
  ]);
  const levels = useAskAll(core, "level", Object.fromEntries(asked));
  return spots.flatMap(([out, down, name]) => {
    const at = levels?.[name];
    return at ? [{ out, down, name, at }] : [];
  });
}
