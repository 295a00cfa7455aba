// What the exercises, the components of their scores and the rules are called.
import type { Schemas } from "../../api/client";

export type Exercise = Schemas["ExerciseIn"]["exercise"];

export const exercises: readonly Exercise[] = [
  "landmarks",
  "search",
  "grading",
  "asking",
  "reasoning",
  "visit",
];

export const exerciseName: Record<string, string> = {
  landmarks: "Landmarks",
  search: "Search",
  grading: "Graded pressure",
  asking: "Asking",
  reasoning: "Reasoning",
  visit: "A whole visit",
};

export const exerciseWhat: Record<string, string> = {
  landmarks: "Touch six landmarks on a body without names.",
  search: "Feel through a region, and mark the band and its most tender place.",
  grading: "Hold a point by the coach while the client answers in numbers.",
  asking: "Find out what must be known before anybody presses.",
  reasoning: "Name what it is, and how sure you are.",
  visit: "All of it, on the screens of a visit.",
};

const keyNames: Record<string, string> = {
  distance: "How near",
  found: "Found",
  pace: "Pace",
  direction: "Direction of the band",
  muscle: "Muscle",
  gentle: "Not too hard",
  other_side: "Other side compared",
  strokes: "Few strokes",
  structures: "Kept off structures",
  ceilings: "Below the ceilings",
  in_band: "In the band",
  asked: "Numbers asked for",
  time: "Within the cap",
  release: "Slow release",
  followed: "Followed the coach",
  signs: "Signs answered",
  flush: "Flush",
  rightly: "Pressed where it helps",
  flags: "Red flags found",
  open: "Open questions",
  minutes: "Minutes",
  confidence: "Confidence",
  economy: "Minutes",
};

/** "How near"; in a visit "Search: how near". */
export function keyName(key: string): string {
  const [part, name] = key.includes(".") ? key.split(".") : [undefined, key];
  const plain = keyNames[name ?? ""] ?? name ?? "";
  return part ? `${exerciseName[part] ?? part}: ${plain.toLowerCase()}` : plain;
}

interface Rule {
  name: string;
  why: string;
}

const rules: Record<string, Rule> = {
  "too-hard": { name: "Too hard", why: "A finger that presses hard feels less, and makes the place sore." },
  "other-muscle": { name: "Another muscle", why: "What is treated is the muscle that was named." },
  "over-structure": {
    name: "Over a structure",
    why: "Nerves, vessels and glands are not pressed: ease off and feel beside them.",
  },
  guarding: {
    name: "Guarding",
    why: "A client who guards feels more, and the number says nothing for a while.",
  },
  "sudden-release": {
    name: "Let go at once",
    why: "A slow release lets the blood come back without a start.",
  },
  "advice-not-followed": {
    name: "Advice not followed",
    why: "Within 5 s a hand can do less; later it has pressed on for nothing.",
  },
  "over-hard-ceiling": { name: "Above the hard ceiling", why: "Above it the body fights the hand." },
  "sign-missed": {
    name: "A sign not answered",
    why: "Tingling, a pulse or faintness ends the pressure at once.",
  },
  "no-flush": { name: "No flush", why: "After a release the blood needs its 15 to 30 s." },
  "not-to-press": {
    name: "Not to be pressed",
    why: "Some pain is not a muscle's, and some muscles have no point.",
  },
  "landmark-missed": { name: "Landmark missed", why: "Every muscle is found from its landmarks." },
  "leading-question": {
    name: "A leading question",
    why: "Whoever wants to please agrees with it; an open one is answered truly.",
  },
  "flag-found": { name: "A red flag found", why: "It is what the screening is for." },
  "flag-missed": { name: "A red flag missed", why: "What is not asked for is seldom told." },
  "sure-and-wrong": { name: "Sure and wrong", why: "Being sure closes the search too soon." },
  "not-named": { name: "Not among the answers", why: "Three answers are allowed: use them while in doubt." },
};

export const ruleOf = (id: string): Rule => rules[id] ?? { name: id.replaceAll("-", " "), why: "" };

export const percent = (share: number | undefined) =>
  share === undefined ? "–" : `${Math.round(share * 100)}`;
export const levelName = (n: number) => `Level ${n}`;
