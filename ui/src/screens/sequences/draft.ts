// A sequence in the making: what may be changed, always within what its techniques allow.
import type { Schemas } from "../../api/client";

export type Draft = Schemas["OwnSequence"];
export type Step = Schemas["TechniqueStep"];
export type Technique = Schemas["Technique"];
type Steer = Technique["steer"];

/** The usual dose of a technique. */
export function usualDose(t: Technique): Schemas["Dose"] {
  return { [t.steer]: t.amount.usual, ...(t.each_s.most > 0 ? { each_s: t.each_s.usual } : {}) };
}

/** How much of a step: its own, or what is usual. */
export const amountOf = (s: Step, t: Technique): number => s.dose?.[t.steer] ?? t.amount.usual;
export const eachOf = (s: Step, t: Technique): number => s.dose?.each_s ?? t.each_s.usual;

/** How far a touch of a stepper goes. */
export const stepOf = (by: Steer, most: number) =>
  by === "seconds" ? (most > 180 ? 30 : most > 60 ? 10 : 5) : 1;

const within = (v: number, { least, most }: Schemas["DoseBounds"]) => Math.min(most, Math.max(least, v));

export function withAmount(s: Step, t: Technique, v: number): Step {
  return { ...s, dose: { ...usualDose(t), ...s.dose, [t.steer]: within(v, t.amount) } };
}
export function withEach(s: Step, t: Technique, v: number): Step {
  return { ...s, dose: { ...usualDose(t), ...s.dose, each_s: within(v, t.each_s) } };
}

/** A step moved to another place in the list. */
export function moved(steps: Step[], from: number, to: number): Step[] {
  const rest = steps.filter((_, i) => i !== from);
  const step = steps[from];
  return step ? [...rest.slice(0, to), step, ...rest.slice(to)] : steps;
}

/** A copy of a shipped sequence, to be changed. */
export const copyOf = (s: Schemas["Shipped"]): Draft => ({
  name: `${s.name}, our way`,
  for: s.for,
  block: s.block,
  from: s.id,
  steps: s.steps,
  ...(s.sides ? { sides: s.sides } : {}),
});

export const emptyDraft: Draft = { name: "", block: "warm-up", sides: "each", steps: [] };
