// A visit's log on this page: what the server gave, what other devices and tabs
// have added since, and what was written here. Nothing is drawn when it grows: the
// core is asked for the state, and that is what a screen shows.
import { useEffect, useMemo } from "react";
import type { Schemas } from "../api/client";
import type { LogEvent } from "./events";
import type { Fetched } from "./openVisit";
import { outbox } from "./outbox";
import { Undoing } from "./useUndo";

/** Hears that a log has grown; whether the state is wanted soon. */
type Grown = (soon: boolean) => void;

/** What a hold says as it goes. Its screen shows the coach, who hears it at once, so that the state may
 * follow; a sign of the client's, the end and what is taken back do not wait. */
const follows = new Set(
  `contact release off-spot on-spot pause resume pressure angle-change score trend referral twitch guard
  softening breath rep range tick`.split(/\s+/),
);
const mayFollow = ({ type, body }: LogEvent) =>
  type === "hold-event" && follows.has((body as unknown as Schemas["HoldHappened"]).event);

export class VisitLog {
  private opened = false;
  private byID = new Map<string, LogEvent>();
  private version = 0;
  private readonly versions = new Set<number>();
  private readonly listeners = new Set<Grown>();
  readonly undoing = new Undoing();
  /** What it holds; absent before what the server gave is in it. The same list until it grows. */
  events?: LogEvent[];

  constructor(private readonly visit: string) {}

  /** Puts in what was written here. */
  write(e: LogEvent) {
    this.put([e], []);
    this.grown(!mayFollow(e));
  }

  /** Puts in what others say; confirmed by the server, events override local ones. What is only
   * confirmed may follow. */
  add(events: LogEvent[], refused: string[] = []) {
    const news = refused.length > 0 || events.some((e) => !this.byID.has(e.id));
    this.put(events, refused);
    this.grown(news);
  }

  private put(events: LogEvent[], refused: string[]) {
    for (const e of events) {
      if (e.version) this.versions.add(e.version);
      if (e.version || !this.byID.get(e.id)?.version) this.byID.set(e.id, e);
    }
    // Another tab may bring what is newer than what this one has: only what
    // is here without a gap has been seen.
    while (this.versions.has(this.version + 1)) this.version += 1;
    outbox.has(this.visit, this.version);
    for (const id of refused) if (!this.byID.get(id)?.version) this.byID.delete(id);
  }

  /** Puts in what the server gave, and what waits here. */
  open({ unsent, open }: Fetched) {
    this.put([...unsent, ...open.events], []);
    this.opened = true;
    this.grown(true);
  }

  /** The version that this page has seen, without a gap. */
  seen = () => this.version;

  onGrown(f: Grown): () => void {
    this.listeners.add(f);
    return () => void this.listeners.delete(f);
  }

  private grown(soon: boolean) {
    if (!this.opened) return;
    this.events = [...this.byID.values()];
    for (const f of this.listeners) f(soon);
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
