// Beginning an exercise: on the ordinary screens, a hold or a whole visit; the others on their own.
import { useNavigate } from "react-router";
import type { Schemas } from "../../../api/client";
import type { BenchModule } from "../../../core/benchModule";
import { beginBenchVisit } from "../../../core/benchVisit";
import { may } from "../../../rights";
import type { Exercise } from "../words";

export interface Begun {
  exercise: Exercise;
  case?: string;
  level?: number;
  coach: "speaks" | "silent";
  assignment?: string;
  item?: number;
  /** The very client of a result, to begin with again. */
  again?: Pick<Schemas["ExerciseIn"], "case" | "seed">;
}

/** Gives where it goes on. */
export function beginOnScreens(bench: BenchModule, me: Schemas["Me"], b: Begun): string {
  const seed = b.again?.seed ?? Math.floor(Math.random() * 1_000_000_000);
  const of = b.again?.case ?? b.case ?? { seed, level: b.level ?? 1 };
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

/** Begins an exercise: those with a hold on the ordinary screens, the others on their own. */
export function useBegin(bench: BenchModule, me: Schemas["Me"]) {
  const go = useNavigate();
  return (b: Begun) => {
    if (b.exercise === "grading" || b.exercise === "visit") return void go(beginOnScreens(bench, me, b));
    const query = new URLSearchParams();
    for (const [k, v] of Object.entries(b)) if (k !== "exercise" && v !== undefined) query.set(k, String(v));
    void go(`/bench/do/${b.exercise}?${query}`);
  };
}
