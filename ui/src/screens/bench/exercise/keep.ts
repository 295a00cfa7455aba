// Keeping what was practised: at the server, and in an outage on this device until it is reached.
import type { QueryClient } from "@tanstack/react-query";
import { api, isOutage, must, type Schemas } from "../../../api/client";
import { reviewKey } from "../queries";
import type { BenchModule } from "../../../core/benchModule";

type Practice = Schemas["PracticeIn"];

const key = "bench-unsent";

const unsent = (): Practice[] => JSON.parse(localStorage.getItem(key) ?? "[]") as Practice[];

const send = (body: Practice) => must(api.POST("/api/bench/results", { body }));

/** Sends what an outage kept here; what is refused would be refused again, and goes. */
export async function sendUnsent() {
  for (const p of unsent()) {
    try {
      await send(p);
    } catch (e) {
      if (isOutage(e)) return;
    }
    localStorage.setItem(key, JSON.stringify(unsent().filter((x) => x.id !== p.id)));
  }
}

/** Keeps a finished exercise, and has its review at hand. */
export async function keepResult(
  queries: QueryClient,
  bench: BenchModule,
  me: Pick<Schemas["Me"], "id" | "name">,
  practice: Practice,
) {
  const outcome = bench.ask("run", practice.input);
  const { id, began_at, coach, assignment, item, input } = practice;
  const of = outcome.truth?.shows?.case;
  const mean = Object.values(outcome.score);
  const review: Schemas["PracticeReview"] = {
    id,
    began_at,
    coach,
    assignment,
    item,
    input,
    outcome,
    person: me.id,
    name: me.name,
    exercise: input.exercise,
    level: of?.level ?? 1,
    title: of?.title ?? "Landmarks",
    finished: true,
    mean: mean.reduce((a, b) => a + b, 0) / Math.max(1, mean.length),
    score: outcome.score,
  };
  queries.setQueryData(reviewKey(id), review);
  try {
    await send(practice);
    await queries.invalidateQueries({ queryKey: ["bench-results"] });
  } catch (e) {
    if (!isOutage(e)) throw e;
    localStorage.setItem(key, JSON.stringify([...unsent(), practice]));
  }
}
