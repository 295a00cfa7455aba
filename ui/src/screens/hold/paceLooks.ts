// How each part of a hold looks as a shape.
import type { Schemas } from "../../api/client";

type Line = Schemas["Line"];
type Phase = Schemas["Phase"];

export interface Look {
  kind: "press" | "rest" | "wait" | "ease" | "off";
  /** How far the shape is swollen, 0 to 1, across and up. */
  wide: number;
  high: number;
  /** How much of it is filled: the ramp. */
  share: number;
  /** An arrow within: which way one moves. */
  way?: string;
  /** Pieces of the outer ring: repeats, breaths, rounds, stations. */
  of: number;
  at: number;
  words: string;
}

const still: Look = { kind: "press", wide: 0.8, high: 0.8, share: 0, of: 0, at: 0, words: "Press and hold" };
const small: Look = { ...still, kind: "wait", wide: 0.35, high: 0.35, words: "Not pressing" };

const arrows = {
  acrossRight: "M62 100 H136 M118 82 L138 100 L118 118",
  inward: "M52 100 H88 M74 86 L90 100 L74 114 M148 100 H112 M126 86 L110 100 L126 114",
  outward: "M92 100 H54 M70 86 L52 100 L70 114 M108 100 H146 M130 86 L148 100 L130 114",
  down: "M100 62 V136 M82 118 L100 138 L118 118",
  both: "M60 100 H140 M76 84 L58 100 L76 116 M124 84 L142 100 L124 116",
  upDown: "M100 60 V140 M84 76 L100 58 L116 76 M84 124 L100 142 L116 124",
};

/** The out-breath is the second half of a breath: the shape sinks with it. */
function breathing({ part_s, part_left_s }: Line): number {
  const gone = part_s > 0 ? 1 - part_left_s / part_s : 0;
  return gone < 0.5 ? 0.95 : 0.6;
}

const looks: Partial<Record<Phase, (l: Line) => Partial<Look>>> = {
  settle: () => ({ wide: 0.65, high: 0.65, words: "Press slowly" }),
  stage: () => ({}),
  narrow: () => ({ wide: 0.5, high: 0.5, words: "Hold, narrow" }),
  broad: () => ({ wide: 0.98, high: 0.72, way: arrows.both, words: "Broad, small movements" }),
  press: () => ({ wide: 0.96, high: 0.96, words: "Press" }),
  rest: () => ({ kind: "rest", wide: 0.35, high: 0.35, words: "Ease off and rest" }),
  ramp: (l) => ({ wide: 0.98, high: 0.98, share: l.ramp_percent / 100, words: "Rising force" }),
  test: () => ({ wide: 0.7, high: 0.7, way: arrows.down, words: "Test" }),
  slacken: () => ({ wide: 0.6, high: 0.85, way: arrows.inward, words: "More slack" }),
  still: () => ({ wide: 0.7, high: 0.7, words: "Keep still" }),
  sink: (l) => ({ wide: breathing(l), high: breathing(l), way: arrows.down, words: "With the breath" }),
  move: () => ({ wide: 0.9, high: 0.7, way: arrows.acrossRight, words: "Movement" }),
  push: () => ({ wide: 0.6, high: 0.9, way: arrows.inward, words: "Push" }),
  lengthen: () => ({ wide: 0.98, high: 0.55, way: arrows.outward, words: "Lengthen" }),
  check: () => ({ kind: "off", words: "Still on it?" }),
  "off-spot": () => ({ kind: "off", words: "Off the spot" }),
  release: () => ({ kind: "ease", wide: 0.5, high: 0.5, words: "Come off slowly" }),
};

/** Strokes along the attachment and across it are told apart by their way. */
function strokes(before: string | undefined): Partial<Look> {
  const across = before?.includes("across");
  return {
    wide: across ? 0.98 : 0.6,
    high: across ? 0.6 : 0.98,
    way: across ? arrows.both : arrows.upDown,
    words: across ? "Strokes across" : "Strokes along",
  };
}

export function lookOf(line: Line, plan: Schemas["HoldPlan"] | undefined): Look {
  const { phase, rep, reps, advice } = line;
  const own = phase === "stroke" ? strokes(line.text) : looks[phase]?.(line);
  const counted = plan?.steering !== "stages" && reps > 1;
  const marks = counted && own ? { of: reps, at: rep } : {};
  if (!own) return small;
  const eased = advice.includes("ease-off") ? { kind: "ease" as const, wide: 0.5, high: 0.5 } : {};
  return { ...still, ...own, ...marks, ...eased };
}
