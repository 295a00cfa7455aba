// An exercise under way: what the client said and showed, and what is done next. In practice the
// module in this page lives through it; in an exam the server does, which alone knows the case.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, must, type Schemas } from "../../../api/client";
import { now } from "../../../core/clock";
import type { BenchModule } from "../../../core/benchModule";
import { uuidv7 } from "../../../core/ids";

type Action = Omit<Schemas["LearnerAction"], "t">;
export type ClientTold = Schemas["ClientTold"];
type Input = Schemas["ExerciseIn"];
type Felt = Schemas["FingerAt"];

/** Who lives through an exercise. */
export interface Teller {
  open: () => Promise<{ told: ClientTold[]; done: boolean; elapsed: number }>;
  act: (a: Schemas["LearnerAction"]) => Promise<{ told: ClientTold[]; done: boolean }>;
  look: (ms: number) => Promise<{ told: ClientTold[] }>;
  feel: (f: Felt) => Promise<number>;
}

/** In this page. */
export function practising(bench: BenchModule, input: Input): Teller {
  const session = uuidv7();
  const last = input.actions.at(-1)?.t ?? 0;
  return {
    open: async () => ({ ...bench.ask("open", { ...input, session }), elapsed: last * 1000 }),
    act: async (action) => bench.ask("act", { session, action }),
    look: async (ms) => bench.ask("look", { session, ms }),
    feel: async (f) => bench.ask("feel", { ...f, session }).feels,
  };
}

/** At the server, which tells nothing but what the client says and shows. */
export function sitting(assignment: string, item: number): Teller {
  let id = "";
  const send = async (body: Schemas["SittingIn"]) => {
    const s = await must(api.POST("/api/bench/sittings/{id}", { params: { path: { id } }, body }));
    return { ...s, told: s.told ?? [] };
  };
  return {
    open: async () => {
      const s = await must(
        api.POST("/api/bench/assignments/{id}/items/{item}/sit", {
          params: { path: { id: assignment, item } },
        }),
      );
      id = s.id;
      return { told: s.told ?? [], done: s.done, elapsed: s.elapsed_ms };
    },
    act: (a) => send({ actions: [a] }),
    look: (ms) => send({ actions: [], look_ms: Math.round(ms) }),
    feel: async (f) => (await send({ actions: [], feel: f })).feels ?? 0,
  };
}

export interface Doing {
  told: ClientTold[];
  done: boolean;
  error?: Error;
  actions: Schemas["LearnerAction"][];
  /** Since it was begun, in ms. */
  elapsed: () => number;
  act: (a: Action) => Promise<ClientTold[]>;
  /** Time passes; what the client says of it is in told. */
  look: () => void;
  feel: (f: Felt) => Promise<number>;
}

/** Undefined until the client is there. */
export function useExercise(
  teller: Teller | undefined,
  before: Schemas["LearnerAction"][],
  onActed?: (all: Schemas["LearnerAction"][]) => void,
): Doing | undefined {
  const [told, setTold] = useState<ClientTold[]>();
  const [done, setDone] = useState(false);
  const [error, setError] = useState<Error>();
  const actions = useRef(before);
  const [all, setAll] = useState(before);
  const began = useRef(0);
  const acted = useRef(onActed);
  acted.current = onActed;
  // One after the other: an action is told when the one before it is.
  const chain = useRef<Promise<unknown>>(Promise.resolve());

  useEffect(() => {
    if (!teller) return;
    let gone = false;
    teller.open().then(
      (s) => {
        if (gone) return;
        began.current = now() - s.elapsed;
        setTold(s.told);
        setDone(s.done);
      },
      (e: Error) => setError(e),
    );
    return () => {
      gone = true;
    };
  }, [teller]);

  const elapsed = useCallback(() => Math.max(0, now() - began.current), []);
  const act = useCallback(
    (a: Action) => {
      if (!teller) return Promise.resolve<ClientTold[]>([]);
      const t = Math.max(Math.round(elapsed()) / 1000, actions.current.at(-1)?.t ?? 0);
      const whole = { ...a, t };
      const next = chain.current.then(async () => {
        const s = await teller.act(whole);
        actions.current = [...actions.current, whole];
        setAll(actions.current);
        acted.current?.(actions.current);
        if (s.told.length) setTold((old) => [...(old ?? []), ...s.told]);
        setDone(s.done);
        setError(undefined);
        return s.told;
      });
      chain.current = next.catch((e: Error) => setError(e));
      return next.catch(() => []);
    },
    [teller, elapsed],
  );
  const look = useCallback(() => {
    chain.current = chain.current.then(() =>
      teller?.look(elapsed()).then(
        (s) => s.told.length > 0 && setTold((old) => [...(old ?? []), ...s.told]),
        () => undefined,
      ),
    );
  }, [teller, elapsed]);
  const feel = useCallback((f: Felt) => teller?.feel(f) ?? Promise.resolve(0), [teller]);
  return useMemo(
    () =>
      told
        ? { told, done, error, actions: all, elapsed, act, look, feel }
        : error && { told: [], done: false, error, actions: [], elapsed, act, look, feel },
    [told, done, error, all, elapsed, act, look, feel],
  );
}
