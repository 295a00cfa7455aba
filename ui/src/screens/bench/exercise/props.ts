// What each exercise is given.
import type { Core } from "../../../core/core";
import type { Doing } from "./useExercise";

export interface ExerciseProps {
  core: Core;
  doing: Doing;
  /** What stands above it: the exercise, its case or that it is an exam. */
  title: string;
}
