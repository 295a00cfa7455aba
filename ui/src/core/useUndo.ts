// Undoing what was done on this page, and doing it again. What can be undone is the core's
// to say.
import { useCallback, useMemo, useState } from "react";
import type { Schemas } from "../api/client";
import type { Core } from "./core";
import type { LogEvent, Write } from "./events";
import { now } from "./clock";
import { useAsk } from "./useAsk";

export interface Undo {
  /** Notes what was done. */
  did: (e: LogEvent) => void;
  /** Undoes the last event of this page that can be undone; redo does it again. */
  undo?: () => void;
  redo?: () => void;
}

/** So far back one undoes. */
const mostEvents = 60;

export function useUndo(core: Core | undefined, of: Schemas["Of"] | undefined, write: Write): Undo {
  const [done, setDone] = useState<LogEvent[]>([]);
  const [undone, setUndone] = useState<{ event: LogEvent; undo: string }[]>([]);
  const did = useCallback(
    (e: LogEvent) => {
      if (!core?.lists.kinds.some((k) => k.type === e.type && k.undoable)) return;
      setDone((d) => [...d, e].slice(-mostEvents));
      setUndone([]);
    },
    [core],
  );
  // The moment of asking matters for answers that may be corrected for minutes only.
  const asked = useMemo(
    () => of && done.length > 0 && { ...of, events: done.map((e) => e.id), now_ms: now() },
    [of, done],
  );
  const able = useAsk(core, "visit-undoable", asked || undefined)?.events;
  const last = done.findLast((e) => able?.includes(e.id));
  const undo = useMemo(
    () =>
      last &&
      (() => {
        const id = write("event-undone", { event: last.id });
        setDone((d) => d.filter((e) => e.id !== last.id));
        setUndone((u) => [...u, { event: last, undo: id }]);
      }),
    [last, write],
  );
  const next = undone.at(-1);
  const redo = useMemo(
    () =>
      next &&
      (() => {
        // An undo that is itself undone does not count.
        write("event-undone", { event: next.undo });
        setUndone((u) => u.slice(0, -1));
        setDone((d) => [...d, next.event]);
      }),
    [next, write],
  );
  return { did, undo, redo };
}
