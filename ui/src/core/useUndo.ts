// Undoing what was done on this page, and doing it again. What can be undone is the core's
// to say, and only who shows it asks.
import { useMemo, useSyncExternalStore } from "react";
import type { Schemas } from "../api/client";
import type { Core } from "./core";
import type { LogEvent, Write } from "./events";
import { now } from "./clock";
import { useAsk } from "./useAsk";

/** So far back one undoes. */
const mostEvents = 60;

interface Acts {
  done: LogEvent[];
  undone: { event: LogEvent; undo: string }[];
}

/** What was done in a visit on this page, and what of it was undone. */
export class Undoing {
  private acts: Acts = { done: [], undone: [] };
  private readonly listeners = new Set<() => void>();

  get = () => this.acts;

  subscribe = (f: () => void) => {
    this.listeners.add(f);
    return () => void this.listeners.delete(f);
  };

  did(e: LogEvent) {
    this.become({ done: [...this.acts.done, e].slice(-mostEvents), undone: [] });
  }

  /** Notes that one was undone, by another event. */
  undid(event: LogEvent, undo: string) {
    const { done, undone } = this.acts;
    this.become({ done: done.filter((e) => e.id !== event.id), undone: [...undone, { event, undo }] });
  }

  /** Notes that what was undone last is done again. */
  redid() {
    const { done, undone } = this.acts;
    const last = undone.at(-1);
    if (last) this.become({ done: [...done, last.event], undone: undone.slice(0, -1) });
  }

  private become(acts: Acts) {
    this.acts = acts;
    for (const f of this.listeners) f();
  }
}

export interface Undo {
  /** Undoes the last event of this page that can be undone; redo does it again. */
  undo?: () => void;
  redo?: () => void;
}

interface Undoable {
  core: Core;
  of?: Schemas["Of"];
  write: Write;
  undoing: Undoing;
}

export function useUndo({ core, of, write, undoing }: Undoable): Undo {
  const { done, undone } = useSyncExternalStore(undoing.subscribe, undoing.get);
  // The moment of asking matters for answers that may be corrected for minutes only.
  const asked = useMemo(
    () => (of && done.length > 0 ? { ...of, events: done.map((e) => e.id), now_ms: now() } : undefined),
    [of, done],
  );
  const able = useAsk(core, "visit-undoable", asked)?.events;
  const last = done.findLast((e) => able?.includes(e.id));
  const next = undone.at(-1);
  return {
    undo: last && (() => undoing.undid(last, write("event-undone", { event: last.id }))),
    redo:
      next &&
      (() => {
        // An undo that is itself undone does not count.
        write("event-undone", { event: next.undo });
        undoing.redid();
      }),
  };
}
