// The state of a visit as the core reduces it from the log, at every change. Where an event
// changes nothing that is asked of a visit, as when the server confirms it, the core gives the
// revision that is shown, and nothing is drawn.
import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import type { Core } from "./core";
import type { LogEvent } from "./events";
import type { OpenedVisit } from "./openedVisit";
import type { VisitLog } from "./useLog";

interface VisitState {
  state: Schemas["State"];
  revision: number;
}

export interface StateOfVisit {
  /** The newest state that the core has given; absent before the first. */
  shown?: VisitState;
  error?: Error;
  /** The revision with everything that is in the log by now. */
  upToDate: () => Promise<number>;
  /** Whether the state that is shown has heard of an event. */
  knows: (id: string) => boolean;
}

/** What may follow is asked for so much later, together. */
const laterMS = 200;

const soon = (waiting: ((given: Promise<number>) => void)[]) =>
  new Promise<number>((done) => waiting.push(done));

export function useVisitState(
  core: Core | undefined,
  open: OpenedVisit | undefined,
  log: VisitLog,
): StateOfVisit {
  const [answer, setAnswer] = useState<Pick<StateOfVisit, "shown" | "error">>({});
  const asked = useRef(0);
  const answered = useRef(0);
  const latest = useRef<() => Promise<number>>(undefined);
  /** Who wants a revision before any was asked for. */
  const waiting = useRef<((given: Promise<number>) => void)[]>([]);
  const heard = useRef<LogEvent[]>([]);
  const states = useRef<VisitState>(undefined);
  useEffect(() => {
    if (!core || !open) return;
    const { context, earlier, visit } = open;
    let due = false;
    const ask = () => {
      due = false;
      const { events } = log;
      if (!events) return;
      asked.current += 1;
      const number = asked.current;
      const given = core.ask("visit-state", {
        visit: visit.id,
        context,
        earlier,
        events,
        shown: states.current?.revision,
      });
      const revision = () => given.then((g) => g.revision);
      latest.current = revision;
      for (const done of waiting.current.splice(0)) done(revision());
      // What was answered later is newer; what comes after it is dropped.
      const take = (a: typeof answer) => {
        if (number < answered.current) return;
        answered.current = number;
        heard.current = events;
        setAnswer((now) => (now.shown === a.shown && now.error === a.error ? now : a));
      };
      given.then(
        ({ state, revision }) => {
          if (state) states.current = { state, revision };
          take({ shown: states.current });
        },
        (error: Error) => take({ error }),
      );
    };
    const askIfDue = () => {
      if (due) ask();
    };
    ask();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const later = () => {
      timer = undefined;
      askIfDue();
    };
    // Behind what is asked in the same moment, as what the coach says to a key is; and once for all
    // that is written in it.
    const forget = log.onGrown((soon) => {
      due = true;
      const soonest = (): Promise<number> => {
        askIfDue();
        return (latest.current ?? soonest)();
      };
      latest.current = soonest;
      if (soon) queueMicrotask(askIfDue);
      else timer ??= setTimeout(later, laterMS);
    });
    return () => {
      forget();
      clearTimeout(timer);
    };
  }, [core, open, log]);
  const upToDate = useCallback(() => latest.current?.() ?? soon(waiting.current), []);
  const knows = useCallback((id: string) => heard.current.some((e) => e.id === id), []);
  return { ...answer, upToDate, knows };
}
