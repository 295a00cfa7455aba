// A visit's log on this page: what the server gave, what other devices and tabs
// have added since, and what was written here.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { LogEvent } from "./events";
import type { Fetched } from "./openVisit";
import { outbox } from "./outbox";

export interface Log {
  /** Whether what the server gave is in it. */
  ready: boolean;
  events: LogEvent[];
  add: (events: LogEvent[], refused?: string[]) => void;
  /** The version that this page has seen, without a gap. */
  seen: () => number;
}

export function useLog(visit: string, fetched: Fetched | undefined): Log {
  const [log, setLog] = useState<Map<string, LogEvent>>(new Map());
  const [ready, setReady] = useState(false);
  const version = useRef(0);
  const versions = useRef(new Set<number>());

  const add = useCallback(
    (events: LogEvent[], refused: string[] = []) => {
      for (const e of events) if (e.version) versions.current.add(e.version);
      // Another tab may bring what is newer than what this one has: only what
      // is here without a gap has been seen.
      while (versions.current.has(version.current + 1)) version.current += 1;
      outbox.has(visit, version.current);
      setLog((old) => merged(old, events, refused));
    },
    [visit],
  );

  useEffect(
    () =>
      outbox.onReceived((of, events, refused) => {
        if (of === visit) add(events, refused);
      }),
    [visit, add],
  );
  useEffect(() => {
    if (!fetched) return;
    add([...fetched.unsent, ...fetched.open.events]);
    setReady(true);
  }, [fetched, add]);

  const events = useMemo(() => [...log.values()], [log]);
  const seen = useCallback(() => version.current, []);
  return useMemo(() => ({ ready, events, add, seen }), [ready, events, add, seen]);
}

/** Events confirmed by the server override local ones. */
function merged(old: Map<string, LogEvent>, events: LogEvent[], refused: string[]) {
  const next = new Map(old);
  for (const e of events) if (e.version || !next.get(e.id)?.version) next.set(e.id, e);
  for (const id of refused) if (!next.get(id)?.version) next.delete(id);
  return next;
}
