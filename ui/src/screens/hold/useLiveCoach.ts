// The coach of a live hold, which the core keeps: it is opened with the log of the hold,
// told each event once, and asked how it stands.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";

type View = Schemas["HoldView"];
type Happened = Schemas["HoldHappened"];

export interface LiveCoach {
  /** How it stood when it was last asked. */
  view?: View;
  /** Time of the latest event, ms from the start; what a pad said late does not lower it. */
  lastMS: () => number;
  /** Tells it an event, and shows it at a moment. */
  add: (event: Happened, atMS: number) => void;
  /** Shows it at a moment. */
  ask: (atMS: number) => Promise<View>;
}

export function useLiveCoach(core: Core, hold: Schemas["Hold"], elapsed: () => number): LiveCoach {
  const [view, setView] = useState<View>();
  const last = useRef(0);
  // How many events the coach was told: a log that is longer came from elsewhere too.
  const told = useRef(-1);
  const asked = useRef(0);
  const answered = useRef(0);

  /** Shows an answer, unless a newer one shows. */
  const show = useCallback(async (given: Promise<View>) => {
    asked.current += 1;
    const number = asked.current;
    const v = await given;
    if (number > answered.current) {
      answered.current = number;
      setView(v);
    }
    return v;
  }, []);
  const ask = useCallback(
    (at: number) => show(core.ask("hold-look", { hold: hold.id, at_ms: Math.floor(at) })),
    [core, hold.id, show],
  );
  const add = useCallback(
    (event: Happened, at: number) => {
      last.current = Math.max(last.current, event.at_ms);
      told.current += 1;
      void show(core.ask("hold-add", { hold: hold.id, at_ms: Math.floor(at), event }));
    },
    [core, hold.id, show],
  );
  const { start, log } = hold;
  useEffect(() => {
    if (log.length <= told.current) return;
    told.current = log.length;
    last.current = log.reduce((ms, e) => Math.max(ms, e.at_ms), last.current);
    const at_ms = Math.floor(Math.max(last.current, elapsed()));
    void show(core.ask("hold-open", { hold: hold.id, start, log, at_ms }));
  }, [core, hold.id, start, log, elapsed, show]);
  const lastMS = useCallback(() => last.current, []);
  return useMemo(() => ({ view, lastMS, add, ask }), [view, lastMS, add, ask]);
}
