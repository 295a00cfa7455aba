// The end of an exercise on the ordinary screens: it is kept, and its review is shown.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../../api/client";
import { forgetBench, ofBench } from "../../../core/benchVisit";
import { uuidv7 } from "../../../core/ids";
import { loadBench } from "../../../core/loadBench";
import { keepResult } from "../exercise/keep";
import type { Doing } from "../exercise/useExercise";

export function useFinish(visit: string, me: Schemas["Me"], doing: Doing | undefined) {
  const queries = useQueryClient();
  const go = useNavigate();
  const [error, setError] = useState<Error>();
  const finish = async () => {
    if (!doing) return;
    try {
      await doing.act({ action: "finish" });
      const of = ofBench(visit);
      if (!of) return;
      const id = uuidv7();
      await keepResult(queries, await loadBench(), me, {
        id,
        began_at: new Date(Date.now() - doing.elapsed()).toISOString(),
        coach: of.coach,
        input: of.input,
        ...(of.assignment ? { assignment: of.assignment, item: of.item } : {}),
      });
      forgetBench();
      void go(`/bench/review/${id}`, { replace: true });
    } catch (e) {
      setError(e as Error);
    }
  };
  const leave = () => {
    forgetBench();
    void go("/bench");
  };
  return { finish, leave, error };
}
