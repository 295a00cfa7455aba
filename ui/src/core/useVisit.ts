// A visit on screen: the server's log and what is still unsent, reduced by the
// core at every change.
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, must, type Schemas } from "../api/client";
import { type Core, loadCore } from "./core";
import { uuidv7 } from "./ids";
import { device, nextSeq, outbox } from "./outbox";

type Event = Schemas["Event"];

export interface LiveVisit {
  open: Schemas["OpenVisit"];
  state: Schemas["State"];
  core: Core;
  write: (type: string, body: object) => string;
  /** Reads the log against a changed context. */
  rejudge: (context: Schemas["Context"]) => void;
  /** Takes the last undoable event of this page back; redo brings it again. */
  undo?: () => void;
  redo?: () => void;
}

/** Time that never goes back, in Unix ms. */
export const now = () => Math.round(performance.timeOrigin + performance.now());

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

export function useVisit(
  id: string,
  me: Schemas["Me"],
): { visit?: LiveVisit; error?: Error; retry: () => void } {
  const [core, setCore] = useState<Core>();
  const [open, setOpen] = useState<Schemas["OpenVisit"]>();
  const [log, setLog] = useState<Map<string, Event>>(new Map());
  const [error, setError] = useState<Error>();
  const [tries, setTries] = useState(0);
  const [done, setDone] = useState<string[]>([]);
  const [undone, setUndone] = useState<{ event: string; undo: string }[]>([]);
  const version = useRef(0);

  const merge = useCallback((events: Event[]) => {
    for (const e of events) version.current = Math.max(version.current, e.version ?? 0);
    setLog((old) => {
      const next = new Map(old);
      for (const e of events) next.set(e.id, e);
      return next;
    });
  }, []);

  useEffect(() => {
    let gone = false;
    setError(undefined);
    (async () => {
      const c = await loadCore();
      let v: Schemas["OpenVisit"];
      try {
        v = await must(api.GET("/api/visits/{id}", { params: { path: { id } } }));
        await outbox.keep(id, v);
      } catch (e) {
        const kept = await outbox.kept(id);
        if (!kept) throw e;
        v = kept;
      }
      const unsent = await outbox.unsent(id);
      if (gone) return;
      merge([...unsent, ...v.events]);
      setOpen(v);
      setCore(c);
    })().catch((e) => !gone && setError(e));
    const off = outbox.onReceived((visit, events) => visit === id && merge(events));
    return () => {
      gone = true;
      off();
    };
  }, [id, merge, tries]);

  const write = useCallback(
    (type: string, body: object) => {
      if (!open) throw new Error("The visit is not open.");
      const e: Event = {
        id: uuidv7(),
        client: open.client.id,
        visit: id,
        author: me.id,
        device,
        seq: nextSeq(),
        device_ms: now(),
        seen: version.current,
        schema: 1,
        type,
        body: body as Event["body"],
      };
      merge([e]);
      void outbox.add(e);
      if (undoable.has(type)) {
        setDone((d) => [...d, e.id]);
        setUndone([]);
      }
      return e.id;
    },
    [open, id, me.id, merge],
  );

  const state = useMemo(
    () => (core && open ? core.reduce(open.context, [...log.values()]) : undefined),
    [core, open, log],
  );
  const last = done.at(-1);
  const undo = useMemo(
    () =>
      last
        ? () => {
            const id = write("event-undone", { event: last });
            setDone((d) => d.slice(0, -1));
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
    () => (core && open && state ? { open, state, core, write, rejudge, undo, redo } : undefined),
    [core, open, state, write, rejudge, undo, redo],
  );
  return { visit, error, retry: () => setTries((n) => n + 1) };
}
