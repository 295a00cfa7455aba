// The simulated client of a visit on the ordinary screens, wherever in it one is.
import { useMemo, useState } from "react";
import { changeBench, ofBench } from "../../../core/benchVisit";
import { now } from "../../../core/clock";
import { useBench } from "../../../core/useBench";
import { type Doing, practising, type Teller, useExercise } from "../exercise/useExercise";

export interface SimulatedClient {
  doing: Doing;
  silent: boolean;
  exercise: string;
  story: string;
}

/** Undefined until the client is there; protocol is a grading's, from its hold on. */
export function useBenchVisit(visit: string, protocol?: string): SimulatedClient | undefined {
  const { bench } = useBench();
  const [of] = useState(() => {
    const v = ofBench(visit);
    // The times of a grading count from its hold.
    if (v && protocol && v.input.exercise === "grading" && v.input.actions.length === 0)
      changeBench(visit, { input: { ...v.input, protocol } as typeof v.input, began: now() });
    return v;
  });
  const teller = useMemo((): Teller | undefined => {
    if (!bench || !of) return undefined;
    const t = practising(bench, of.input);
    return { ...t, open: async () => ({ ...(await t.open()), elapsed: Math.max(0, now() - of.began) }) };
  }, [bench, of]);
  const doing = useExercise(teller, of?.input.actions ?? [], (actions) => {
    if (of) changeBench(visit, { input: { ...of.input, actions } });
  });
  return (
    doing && of && { doing, silent: of.coach === "silent", exercise: of.input.exercise, story: of.story }
  );
}
