// One exercise: the client is opened for it, one of the exercises is done with it, and what it came
// to is kept and shown.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { api, must, type Schemas } from "../../../api/client";
import type { BenchModule } from "../../../core/benchModule";
import type { Core } from "../../../core/core";
import { uuidv7 } from "../../../core/ids";
import { useBench } from "../../../core/useBench";
import { useCore } from "../../../core/useCore";
import { Failed, Waiting } from "../../../parts/controls";
import { exerciseName, type Exercise as Kind } from "../words";
import { Asking } from "./Asking";
import { BlindHold } from "./BlindHold";
import { reviewKey } from "../queries";
import { keepResult } from "./keep";
import { Landmarks } from "./Landmarks";
import { Reasoning } from "./Reasoning";
import { Search } from "./Search";
import { practising, sitting, useExercise } from "./useExercise";

const rooms: Partial<Record<Kind, typeof Landmarks>> = {
  landmarks: Landmarks,
  search: Search,
  grading: BlindHold,
  asking: Asking,
  reasoning: Reasoning,
};

/** Any whole number; it is written down with the result. */
const newSeed = () => Math.floor(Math.random() * 1_000_000_000);

export default function Exercise({ me }: { me: Schemas["Me"] }) {
  const { core, error, retry } = useCore();
  const { bench, error: noBench, retry: again } = useBench();
  const failed = error ?? noBench;
  if (failed) {
    const both = () => {
      retry();
      again();
    };
    return <Failed error={failed} onRetry={both} />;
  }
  if (!core || !bench) return <Waiting>Opening the bench…</Waiting>;
  return <OfAddress key={location.pathname + location.search} me={me} core={core} bench={bench} />;
}

interface Props {
  me: Schemas["Me"];
  core: Core;
  bench: BenchModule;
}

/** What the address asks for: an exam's item, a result from a moment on, or a case. */
function OfAddress(props: Props) {
  const { exercise = "landmarks" } = useParams();
  const [params] = useSearchParams();
  const from = params.get("from");
  const earlier = useQuery({
    queryKey: reviewKey(from ?? ""),
    enabled: !!from,
    queryFn: () => must(api.GET("/api/bench/results/{id}", { params: { path: { id: from ?? "" } } })),
  });
  const [seed] = useState(newSeed);
  const input = useMemo((): Schemas["ExerciseIn"] | undefined => {
    if (from) {
      const until = Number(params.get("until") ?? 0);
      const of = earlier.data?.input;
      return of && { ...of, actions: of.actions.filter((a) => a.t < until && a.action !== "finish") };
    }
    const level = Number(params.get("level") ?? 0);
    const of = level ? { seed, level } : (params.get("case") ?? "stiff-neck-desk");
    return { case: of, seed, exercise: exercise as Kind, actions: [] };
  }, [from, earlier.data, params, seed, exercise]);
  if (earlier.error) return <Failed error={earlier.error} onRetry={() => earlier.refetch()} />;
  if (!input) return <Waiting>Opening the exercise…</Waiting>;
  return <Opened {...props} input={input} />;
}

function Opened({ me, core, bench, input }: Props & { input: Schemas["ExerciseIn"] }) {
  const [params] = useSearchParams();
  const go = useNavigate();
  const queries = useQueryClient();
  const assignment = params.get("assignment") ?? undefined;
  const item = Number(params.get("item") ?? 0);
  const exam = params.get("exam") === "yes";
  const teller = useMemo(
    () => (exam && assignment ? sitting(assignment, item) : practising(bench, input)),
    [exam, assignment, item, bench, input],
  );
  const doing = useExercise(teller, input.actions);
  const [error, setError] = useState<Error>();
  const ended = useRef(false);
  const done = doing?.done;
  useEffect(() => {
    if (!done || !doing || ended.current) return;
    ended.current = true;
    if (exam) {
      void queries.invalidateQueries({ queryKey: ["bench-results"] });
      return void go("/bench", { replace: true });
    }
    const id = uuidv7();
    const practice: Schemas["PracticeIn"] = {
      id,
      began_at: new Date(Date.now() - doing.elapsed()).toISOString(),
      coach: params.get("coach") === "silent" ? "silent" : "speaks",
      ...(assignment ? { assignment, item } : {}),
      input: { ...input, actions: doing.actions },
    };
    keepResult(queries, bench, me, practice).then(
      () => go(`/bench/review/${id}`, { replace: true }),
      setError,
    );
  }, [done, doing, exam, go, params, assignment, item, input, queries, bench, me]);
  const Room = rooms[input.exercise];
  if (error) return <Failed error={error} />;
  if (doing?.error && !doing.told.length) return <Failed error={doing.error} />;
  if (!doing || !Room) return <Waiting>Opening the exercise…</Waiting>;
  return (
    <Room
      core={core}
      doing={doing}
      title={exam ? `${exerciseName[input.exercise]}, exam` : titleOf(bench, input)}
    />
  );
}

/** "Search: stiff neck at the desk"; a made case has no name. */
function titleOf(bench: BenchModule, input: Schemas["ExerciseIn"]) {
  const name = exerciseName[input.exercise] ?? input.exercise;
  const shipped = bench.ask("cases", {}).cases.find((c) => c.id === input.case);
  return shipped && input.exercise !== "landmarks" ? `${name}: ${shipped.title}` : name;
}
