// A visit on screen: the server's log and what is still unsent, reduced by the
// core at every change.
import { useCallback, useMemo, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { now } from "./clock";
import type { Core } from "./core";
import type { LogEvent, Preview, Write } from "./events";
import { uuidv7 } from "./ids";
import { useFetchedVisit, useKeeper } from "./openVisit";
import { device, nextSeq, outbox } from "./outbox";
import { wellFormedAll } from "./text";
import { useCore } from "./useCore";
import { useLog } from "./useLog";
import { useUndo } from "./useUndo";

export interface LiveVisit {
  open: Schemas["OpenVisit"];
  state: Schemas["State"];
  core: Core;
  write: Write;
  preview: Preview;
  /** Reads the log against a changed context. */
  rejudge: (context: Schemas["Context"]) => void;
  undo?: () => void;
  redo?: () => void;
}

export function useVisit(
  id: string,
  me: Schemas["Me"],
): { visit?: LiveVisit; error?: Error; retry: () => void } {
  const { core, error: noCore, retry: loadAgain } = useCore();
  const keeper = useKeeper(me);
  const fetched = useFetchedVisit(id, keeper);
  const log = useLog(id, fetched.data);
  const [context, rejudge] = useState<Schemas["Context"]>();
  const open = useMemo(
    () => fetched.data && { ...fetched.data.open, ...(context ? { context } : {}) },
    [fetched.data, context],
  );
  const state = useMemo(
    () => (core && open && log.ready ? core.reduce(open.context, log.events) : undefined),
    [core, open, log.ready, log.events],
  );
  const made = useEnvelope(open, me.id, log.seen);
  const { add } = log;
  const noted = useRef<(e: LogEvent) => void>(() => undefined);
  const write = useCallback<Write>(
    (type, body) => {
      const e = made(type, body, { id: uuidv7(), seq: nextSeq() });
      add([e]);
      void outbox.add(e);
      noted.current(e);
      return e.id;
    },
    [made, add],
  );
  const { did, undo, redo } = useUndo(state, write);
  noted.current = did;
  const preview = useCallback<Preview>(
    (type, body) => {
      if (!core || !open) return "";
      const e = made(type, body, { id: uuidv7(), seq: Number.MAX_SAFE_INTEGER });
      return whyAside(core.reduce(open.context, [...log.events, e]), e);
    },
    [made, core, open, log.events],
  );
  const visit = useMemo(
    () => (core && open && state ? { open, state, core, write, preview, rejudge, undo, redo } : undefined),
    [core, open, state, write, preview, undo, redo],
  );
  const retry = () => {
    loadAgain();
    void fetched.refetch();
  };
  return { visit, error: fetched.error ?? noCore, retry };
}

type Envelope = (type: string, body: object, at: { id: string; seq: number }) => LogEvent;

/** Puts what is written into its envelope. */
function useEnvelope(open: Schemas["OpenVisit"] | undefined, author: string, seen: () => number): Envelope {
  const visit = open?.visit.id;
  const client = open?.client.id;
  return useCallback(
    (type, body, at) => {
      if (!visit || !client) throw new Error("The visit is not open.");
      return {
        ...at,
        client,
        visit,
        author,
        device,
        device_ms: now(),
        seen: seen(),
        schema: 1,
        type,
        body: wellFormedAll(body) as LogEvent["body"],
      };
    },
    [visit, client, author, seen],
  );
}

/** Why an event was set aside; "" when it was not. */
function whyAside(s: Schemas["State"], e: LogEvent): string {
  const hold = (e.body as { hold?: string }).hold;
  return (
    s.aside.find((a) => a.event === e.id)?.reason ??
    s.holds.find((h) => h.id === hold && h.status === "aside")?.why ??
    ""
  );
}
