// Taking back what was done on this page, and doing it again.
import { useCallback, useMemo, useState } from "react";
import type { Schemas } from "../api/client";
import type { EventType, LogEvent, Write } from "./events";

const undoable = new Set<EventType>([
  "point-charted",
  "point-corrected",
  "point-moved",
  "point-removed",
  "point-rechecked",
  "range-measured",
  "note-written",
  "drawing-painted",
  "interview-noted",
  "screening-answered",
  "test-done",
  "sign-seen",
  "loads-declared",
  "posture-read",
  "gauge-read",
]);

/** What one may still take back: nothing that a hold rests on, nothing of a closed visit. */
export function mayUndo(e: LogEvent, state: Schemas["State"]): boolean {
  if (state.closed_ms) return false;
  if (e.type === "screening-answered") return state.holds.length === 0;
  const point = (e.body as { point?: string }).point;
  return (
    !e.type.startsWith("point-") ||
    e.type === "point-rechecked" ||
    !state.holds.some((h) => h.point === point)
  );
}

export interface Undo {
  /** Notes what was done. */
  did: (e: LogEvent) => void;
  /** Takes the last undoable event of this page back; redo brings it again. */
  undo?: () => void;
  redo?: () => void;
}

export function useUndo(state: Schemas["State"] | undefined, write: Write): Undo {
  const [done, setDone] = useState<LogEvent[]>([]);
  const [undone, setUndone] = useState<{ event: LogEvent; undo: string }[]>([]);
  const did = useCallback((e: LogEvent) => {
    if (!undoable.has(e.type as EventType)) return;
    setDone((d) => [...d, e]);
    setUndone([]);
  }, []);
  const last = state && done.findLast((e) => mayUndo(e, state));
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
