// A visit's log on this page: what the server gave, what other devices and tabs
// have added since, and what was written here. Nothing is drawn when it grows: the
// core is asked for the state, and that is what a screen shows.
import { useEffect, useMemo } from "react";
import type { LogEvent } from "./events";
import type { Fetched } from "./openVisit";
import { outbox } from "./outbox";
import { Undoing } from "./useUndo";

export class VisitLog {
  private byID = new Map<string, LogEvent>();
  private version = 0;
  private readonly versions = new Set<number>();
  private readonly listeners = new Set<() => void>();
  readonly undoing = new Undoing();
  /** What it holds; absent before what the server gave is in it. The same list until it grows. */
  events?: LogEvent[];

  constructor(private readonly visit: string) {}

  /** Puts events in; confirmed by the server, they override local ones. */
  add(events: LogEvent[], refused: string[] = []) {
    for (const e of events) {
      if (e.version) this.versions.add(e.version);
      if (e.version || !this.byID.get(e.id)?.version) this.byID.set(e.id, e);
    }
    // Another tab may bring what is newer than what this one has: only what
    // is here without a gap has been seen.
    while (this.versions.has(this.version + 1)) this.version += 1;
    outbox.has(this.visit, this.version);
    for (const id of refused) if (!this.byID.get(id)?.version) this.byID.delete(id);
    if (this.events) this.grown();
  }

  /** Puts in what the server gave, and what waits here. */
  open({ unsent, open }: Fetched) {
    this.add([...unsent, ...open.events]);
    this.grown();
  }

  /** The version that this page has seen, without a gap. */
  seen = () => this.version;

  onGrown(f: () => void): () => void {
    this.listeners.add(f);
    return () => void this.listeners.delete(f);
  }

  private grown() {
    this.events = [...this.byID.values()];
    for (const f of this.listeners) f();
  }
}

export function useLog(visit: string, fetched: Fetched | undefined): VisitLog {
  const log = useMemo(() => new VisitLog(visit), [visit]);
  useEffect(
    () =>
      outbox.onReceived((of, events, refused) => {
        if (of === visit) log.add(events, refused);
      }),
    [visit, log],
  );
  useEffect(() => {
    if (fetched) log.open(fetched);
  }, [fetched, log]);
  return log;
}
