// Beginning an exercise that is done on the ordinary screens: a hold, or a whole visit.
import type { Schemas } from "../../../api/client";
import type { BenchModule } from "../../../core/benchModule";
import { beginBenchVisit } from "../../../core/benchVisit";
import { may } from "../../../rights";
import type { Begun } from "../Practise";

/** Gives where it goes on. */
export function beginOnScreens(bench: BenchModule, me: Schemas["Me"], b: Begun): string {
  const seed = Math.floor(Math.random() * 1_000_000_000);
  const of = b.case ?? { seed, level: b.level ?? 1 };
  const input: Schemas["ExerciseIn"] = { case: of, seed, exercise: b.exercise, actions: [] };
  if (!may(me, "open-visit")) {
    const query = b.case ? `case=${b.case}` : `level=${b.level ?? 1}`;
    return `/bench/do/grading?${query}&coach=${b.coach}`;
  }
  const place = bench.ask("pressed", input);
  const v = beginBenchVisit({
    input,
    coach: b.coach,
    story: place.story,
    place,
    ...(b.assignment ? { assignment: b.assignment, item: b.item } : {}),
  });
  return `/visits/${v.visit}?step=${b.exercise === "grading" ? "press" : "draw"}`;
}
