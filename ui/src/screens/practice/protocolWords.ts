const names: Record<string, string> = {
  reps: "repeats",
  press_s: "press",
  rest_s: "rest",
  ask_s: "ask every",
  angle_after_s: "another angle after",
  ramp_s: "ramp",
  still_s: "stillness",
  breaths: "breaths",
  moves: "movements",
  move_s: "movement",
  places: "places",
  push_s: "push",
  lengthen_s: "lengthen",
  strokes: "strokes each way",
  broad_s: "broad part",
};

/** What a number of a protocol is called. */
export const numberName = (n: string) => names[n] ?? n;

/** Seconds where the name ends in _s, else a count. */
export const unitOf = (n: string) => (n.endsWith("_s") ? "s" : "");

export const numberWords = (n: string, v: number) => `${v}${unitOf(n) ? " s" : ""}`;
