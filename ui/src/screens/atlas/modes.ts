// How the atlas is looked through, and what can be laid on the body.

export const modes = ["By name", "By pain", "Keep off"] as const;
export type Mode = (typeof modes)[number];
export const areas = [
  "head-and-neck",
  "shoulder-girdle",
  "arm-and-hand",
  "trunk",
  "hip-and-thigh",
  "leg-and-foot",
] as const;
export const positions = ["prone", "supine", "side-lying-left", "side-lying-right", "seated"] as const;
export const layerNames = ["bones", "landmarks", "muscles", "keep off"];

/** What the depth is called from which muscles are looked at; 1 is outermost. */
const depthNames = ["", "all", "under the first", "deep", "deepest"];
export const depthName = (depth: number) => depthNames[depth] ?? "";
