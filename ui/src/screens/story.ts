// The interview: what is kept of it, and two tellings put together.
import type { Schemas } from "../api/client";

export type Story = Schemas["InterviewNoted"];

export const loads: Schemas["LoadID"][] = [
  "long-sitting",
  "overhead-work",
  "running",
  "jumping",
  "lifting",
  "one-sided-carrying",
  "keyboard",
  "fine-hand-work",
  "standing",
  "driving",
];

/** The three numbers, which stay together. */
export const scores = [
  ["now", "Number now"],
  ["worst", "At its worst"],
  ["best", "At its best"],
] as const;

/** Why a story cannot be kept, or "". */
export const storyError = (s: Story) =>
  s.best !== undefined && s.worst !== undefined && s.best > s.worst
    ? "The best number is above the worst."
    : "";

/** As it is kept: without activities that were given no name. */
export const tidy = (s: Story): Story => ({
  ...s,
  activities: (s.activities ?? []).filter((a) => a.name.trim()),
});

/** A story told on the client's own device over the one that was noted: what was
 * left empty wipes nothing out, and the three numbers stay together. */
export function mergeStory(noted: Story, told: Story): Story {
  const { now, worst, best, ...rest } = noted;
  const numbers = scores.some(([k]) => told[k] !== undefined) ? {} : { now, worst, best };
  const story = tidy({ ...rest, ...numbers, ...told });
  return { ...story, activities: story.activities?.length ? story.activities : (noted.activities ?? []) };
}

/** What is being typed, when the kept story has changed underneath: every field
 * that was not typed into follows the kept one. */
export function rebase(base: Story, typed: Story, kept: Story): Story {
  const out: Record<string, unknown> = { ...kept };
  for (const k of new Set([...Object.keys(base), ...Object.keys(typed)]) as Set<keyof Story>) {
    if (JSON.stringify(typed[k]) !== JSON.stringify(base[k])) out[k] = typed[k];
  }
  return out as Story;
}
