// The state of a visit as the core reduces it from the log, at every change.
import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import type { Core } from "./core";
import type { LogEvent } from "./events";
import type { OpenedVisit } from "./openedVisit";

type VisitState = Schemas["VisitState"];

export interface StateOfVisit {
  /** The newest state that the core has given; absent before the first. */
  shown?: VisitState;
  error?: Error;
  /** The state with everything that is in the log by now. */
  upToDate: () => Promise<VisitState>;
  /** Whether the state that is shown has heard of an event. */
  knows: (id: string) => boolean;
}

const notOpen = () => Promise.reject<VisitState>(new Error("The visit is not open."));

export function useVisitState(
  core: Core | undefined,
  open: OpenedVisit | undefined,
  events: LogEvent[] | undefined,
): StateOfVisit {
  const [answer, setAnswer] = useState<Pick<StateOfVisit, "shown" | "error">>({});
  const asked = useRef(0);
  const answered = useRef(0);
  const latest = useRef(notOpen);
  const heard = useRef<LogEvent[]>([]);
  useEffect(() => {
    if (!core || !open || !events) return;
    asked.current += 1;
    const number = asked.current;
    const { context, earlier, visit } = open;
    const given = core.ask("visit-state", { visit: visit.id, context, earlier, events });
    latest.current = () => given;
    // What was answered later is newer; what comes after it is dropped.
    const take = (a: typeof answer) => {
      if (number < answered.current) return;
      answered.current = number;
      heard.current = events;
      setAnswer(a);
    };
    given.then(
      (shown) => take({ shown }),
      (error: Error) => take({ error }),
    );
  }, [core, open, events]);
  const upToDate = useCallback(() => latest.current(), []);
  const knows = useCallback((id: string) => heard.current.some((e) => e.id === id), []);
  return { ...answer, upToDate, knows };
}
