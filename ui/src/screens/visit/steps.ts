// The path of a visit: its steps, which are still open, and where in it the
// address says we are. The path is always visible and never a lock.
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import type { OpenedVisit } from "../../core/openedVisit";
import { ofBench } from "../../core/benchVisit";
import { isTrial } from "../../core/trial";
import type { LiveVisit } from "../../core/useVisit";

const steps = [
  "last",
  "draw",
  "screen",
  "measure",
  "suspect",
  "find",
  "plan",
  "press",
  "recheck",
  "close",
] as const;
export type StepName = (typeof steps)[number];
export const stepNames: Record<StepName, string> = {
  last: "Last",
  draw: "Pain",
  screen: "Screen",
  measure: "Measure",
  suspect: "Suspect",
  find: "Find",
  plan: "Plan",
  press: "Press",
  recheck: "Recheck",
  close: "Close",
};

/** What is measured, one thing at a time. */
export const parts = ["range", "posture", "signs", "photos"] as const;
export type Part = (typeof parts)[number];
export const partNames: Record<Part, string> = {
  range: "Range",
  posture: "Posture",
  signs: "Squat and reach",
  photos: "Photographs",
};

export function openSteps(s: Schemas["State"]): Record<StepName, boolean> {
  return {
    last: !s.reaction,
    draw: s.drawing.length === 0,
    screen: s.screening.missing.length > 0 || !s.consents.some((c) => c.area === "visit" && c.given),
    measure: !s.ranges.some((r) => r.before !== undefined),
    suspect: s.tests.length === 0,
    find: s.points.length === 0,
    plan: !s.plan,
    press: s.holds.length === 0,
    recheck: s.recheck.length === 0 || s.recheck.some((x) => !x.done),
    close: !s.closed_ms,
  };
}

export interface Path {
  step: StepName;
  part: Part;
  goTo: (step: StepName, part?: Part) => void;
}

/** What five minutes suffice for. */
const trialSteps: StepName[] = ["screen", "find", "press", "recheck", "close"];
/** A hold with a simulated client. */
const gradingSteps: StepName[] = ["press", "close"];

/** A first visit has nothing that was left to it. */
export const stepsOf = (open: Pick<OpenedVisit, "left_off" | "visit">): StepName[] =>
  isTrial(open.visit.id)
    ? trialSteps
    : ofBench(open.visit.id)?.input.exercise === "grading"
      ? gradingSteps
      : steps.filter((s) => s !== "last" || open.left_off);

export function usePath({ open, state }: LiveVisit): Path {
  const [params, setParams] = useSearchParams();
  // Where to begin is decided once; a step never runs away under the hands.
  const [first] = useState<StepName>(() => stepsOf(open).find((s) => openSteps(state)[s]) ?? "close");
  return {
    step: stepsOf(open).find((s) => s === params.get("step")) ?? first,
    part: parts.find((p) => p === params.get("part")) ?? "range",
    goTo: (step, part) => setParams({ step, ...(part ? { part } : {}) }),
  };
}
