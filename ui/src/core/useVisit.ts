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
  /** The last event of this page that an undo may take back. */
  undo?: () => void;
}

/** Time that never goes back, in Unix ms. */
export const now = () => Math.round(performance.timeOrigin + performance.now());

const undoable = new Set(["point-charted", "point-corrected", "point-moved", "point-removed", "point-rechecked", "range-measured", "note-written"]);

export function useVisit(id: string, me: Schemas["Me"]): { visit?: LiveVisit; error?: Error; retry: () => void } {
  const [core, setCore] = useState<Core>();
  const [open, setOpen] = useState<Schemas["OpenVisit"]>();
  const [log, setLog] = useState<Map<string, Event>>(new Map());
  const [error, setError] = useState<Error>();
  const [tries, setTries] = useState(0);
  const [done, setDone] = useState<string[]>([]);
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
        id: uuidv7(), client: open.client.id, visit: id, author: me.id, device, seq: nextSeq(), device_ms: now(),
        seen: version.current, schema: 1, type, body: body as Event["body"],
      };
      merge([e]);
      void outbox.add(e);
      if (undoable.has(type)) setDone((d) => [...d, e.id]);
      return e.id;
    },
    [open, id, me.id, merge],
  );

  const state = useMemo(() => (core ? core.reduce([...log.values()]) : undefined), [core, log]);
  const last = done.at(-1);
  const undo = useMemo(
    () =>
      last
        ? () => {
            write("event-undone", { event: last });
            setDone((d) => d.slice(0, -1));
          }
        : undefined,
    [last, write],
  );
  const visit = useMemo(() => (core && open && state ? { open, state, core, write, undo } : undefined), [core, open, state, write, undo]);
  return { visit, error, retry: () => setTries((n) => n + 1) };
}
