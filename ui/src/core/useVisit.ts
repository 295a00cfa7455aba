// A visit on screen: the server's log and what is still unsent, reduced by the
// core at every change.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, must, Problem, type Schemas } from "../api/client";
import { clockOffset, now, serverSaid } from "./clock";
import { addToCopy, keepCopy, openCopy } from "./copies";
import { type Core, loadCore } from "./core";
import { uuidv7 } from "./ids";
import { device, nextSeq, outbox } from "./outbox";
import { wellFormedAll } from "./text";

type Event = Schemas["Event"];

export interface LiveVisit {
  open: Schemas["OpenVisit"];
  state: Schemas["State"];
  core: Core;
  write: (type: string, body: object) => string;
  /** Why an event would be set aside if it were written now; "" when it would not. */
  preview: (type: string, body: object) => string;
  /** Reads the log against a changed context. */
  rejudge: (context: Schemas["Context"]) => void;
  /** Takes the last undoable event of this page back; redo brings it again. */
  undo?: () => void;
  redo?: () => void;
}

const undoable = new Set([
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
function mayUndo(e: Event, state: Schemas["State"]): boolean {
  if (state.closed_ms) return false;
  if (e.type === "screening-answered") return state.holds.length === 0;
  const point = (e.body as { point?: string }).point;
  return (
    !e.type.startsWith("point-") ||
    e.type === "point-rechecked" ||
    !state.holds.some((h) => h.point === point)
  );
}

export function useVisit(
  id: string,
  me: Schemas["Me"],
): { visit?: LiveVisit; error?: Error; retry: () => void } {
  const [core, setCore] = useState<Core>();
  const [open, setOpen] = useState<Schemas["OpenVisit"]>();
  const [log, setLog] = useState<Map<string, Event>>(new Map());
  const [error, setError] = useState<Error>();
  const [tries, setTries] = useState(0);
  const [done, setDone] = useState<Event[]>([]);
  const [undone, setUndone] = useState<{ event: Event; undo: string }[]>([]);
  const version = useRef(0);
  const versions = useRef(new Set<number>());
  // Who may open a copy; the rest of "me" changes at every look.
  const { id: person, practice, copy_hours } = me;
  const keeper = useMemo(() => ({ id: person, practice, copy_hours }), [person, practice, copy_hours]);

  const merge = useCallback(
    (events: Event[], refused: string[] = []) => {
      for (const e of events) if (e.version) versions.current.add(e.version);
      // Another tab may bring what is newer than what this one has: only what
      // is here without a gap has been seen.
      while (versions.current.has(version.current + 1)) version.current += 1;
      outbox.has(id, version.current);
      setLog((old) => {
        const next = new Map(old);
        for (const e of events) {
          // What the record has stands over what was only written here.
          if (e.version || !next.get(e.id)?.version) next.set(e.id, e);
        }
        for (const e of refused) if (!next.get(e)?.version) next.delete(e);
        return next;
      });
    },
    [id],
  );

  useEffect(() => {
    let gone = false;
    setError(undefined);
    (async () => {
      const c = await loadCore();
      let v: Schemas["OpenVisit"];
      try {
        v = await must(api.GET("/api/visits/{id}", { params: { path: { id } } }));
        serverSaid(v.now_ms);
        await keepCopy(keeper, id, v);
      } catch (e) {
        // Only no answer at all is an outage; a "no" is a no.
        const copy = e instanceof Problem && e.status === 0 ? await openCopy(keeper, id) : undefined;
        if (!copy) throw e;
        v = copy;
      }
      const unsent = await outbox.unsent(id);
      if (gone) return;
      merge([...unsent, ...v.events]);
      setOpen({ ...v, context: { ...v.context, clock_ms: clockOffset() } });
      setCore(c);
    })().catch((e) => !gone && setError(e));
    const off = outbox.onReceived((visit, events, refused) => {
      if (visit !== id) return;
      merge(events, refused);
      if (events.some((e) => e.version)) void addToCopy(keeper, id, events);
    });
    return () => {
      gone = true;
      off();
    };
  }, [id, keeper, merge, tries]);

  const made = useCallback(
    (type: string, body: object, at: { id: string; seq: number }): Event => {
      if (!open) throw new Error("The visit is not open.");
      return {
        ...at,
        client: open.client.id,
        visit: id,
        author: me.id,
        device,
        device_ms: now(),
        seen: version.current,
        schema: 1,
        type,
        body: wellFormedAll(body) as Event["body"],
      };
    },
    [open, id, me.id],
  );

  const write = useCallback(
    (type: string, body: object) => {
      const e = made(type, body, { id: uuidv7(), seq: nextSeq() });
      merge([e]);
      void outbox.add(e);
      if (undoable.has(type)) {
        setDone((d) => [...d, e]);
        setUndone([]);
      }
      return e.id;
    },
    [made, merge],
  );

  const preview = useCallback(
    (type: string, body: object) => {
      if (!core || !open) return "";
      const e = made(type, body, { id: uuidv7(), seq: Number.MAX_SAFE_INTEGER });
      const s = core.reduce(open.context, [...log.values(), e]);
      const hold = (body as { hold?: string }).hold;
      return (
        s.aside.find((a) => a.event === e.id)?.reason ??
        s.holds.find((h) => h.id === hold && h.status === "aside")?.why ??
        ""
      );
    },
    [made, core, open, log],
  );

  const state = useMemo(
    () => (core && open ? core.reduce(open.context, [...log.values()]) : undefined),
    [core, open, log],
  );
  const last = state && done.findLast((e) => mayUndo(e, state));
  const undo = useMemo(
    () =>
      last
        ? () => {
            const id = write("event-undone", { event: last.id });
            setDone((d) => d.filter((e) => e.id !== last.id));
            setUndone((u) => [...u, { event: last, undo: id }]);
          }
        : undefined,
    [last, write],
  );
  const next = undone.at(-1);
  const redo = useMemo(
    () =>
      next
        ? () => {
            // An undo that is itself undone does not count.
            write("event-undone", { event: next.undo });
            setUndone((u) => u.slice(0, -1));
            setDone((d) => [...d, next.event]);
          }
        : undefined,
    [next, write],
  );
  const rejudge = useCallback((context: Schemas["Context"]) => setOpen((o) => o && { ...o, context }), []);
  const visit = useMemo(
    () => (core && open && state ? { open, state, core, write, preview, rejudge, undo, redo } : undefined),
    [core, open, state, write, preview, rejudge, undo, redo],
  );
  return { visit, error, retry: () => setTries((n) => n + 1) };
}
