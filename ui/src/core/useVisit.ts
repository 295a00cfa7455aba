// A visit on screen: the server's log and what is still unsent, reduced by the
// core at every change.
import { useCallback, useMemo, useState } from "react";
import type { Schemas } from "../api/client";
import { now } from "./clock";
import { type Answer, type Core, type Input, isOutdated, type Name } from "./core";
import type { LogEvent, Preview, Write } from "./events";
import { uuidv7 } from "./ids";
import { useFetchedVisit, useKeeper } from "./openVisit";
import type { OpenedVisit } from "./openedVisit";
import { device, nextSeq, outbox } from "./outbox";
import { wellFormedAll } from "./text";
import { isLocal } from "./localIDs";
import { addToLocal } from "./localVisit";
import { useCore } from "./useCore";
import { useVisitState } from "./useVisitState";
import { useLog } from "./useLog";
import type { Undoing } from "./useUndo";

type AskVisit = <N extends Name>(name: N, rest: Omit<Input<N>, "visit" | "revision">) => Promise<Answer<N>>;

export interface LiveVisit {
  open: OpenedVisit;
  state: Schemas["State"];
  core: Core;
  /** By what the core is asked about the state on screen; absent while that is the server's. */
  of?: Schemas["Of"];
  /** Asks about the state with everything that is written by now. */
  ask: AskVisit;
  write: Write;
  /** Whether the state on screen has heard of an event. */
  knows: (id: string) => boolean;
  preview: Preview;
  /** Reads the log against a changed context. */
  rejudge: (context: Schemas["Context"]) => void;
  /** What was done here and may be undone (useUndo). */
  undoing: Undoing;
}

/** So often a question is put again while the log grows. */
const mostTries = 5;

/** A screen that is "early" begins with what the server has made of the log, until the core has:
 * what it asks is answered then. */
export function useVisit(
  id: string,
  me: Schemas["Me"],
  when?: "early",
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
  const { shown, error: noState, upToDate, knows } = useVisitState(core, open, log);
  const made = useEnvelope(open, me.id, log.seen);
  const { undoing } = log;
  const write = useCallback<Write>(
    (type, body) => {
      const e = made(type, body, { id: uuidv7(), seq: nextSeq() });
      log.write(e);
      if (isLocal(id)) addToLocal(e);
      else void outbox.add(e);
      if (core?.lists.kinds.some((k) => k.type === e.type && k.undoable)) undoing.did(e);
      return e.id;
    },
    [made, log, id, core, undoing],
  );
  const of = useMemo(() => shown && { visit: id, revision: shown.revision }, [shown, id]);
  const ask = useCallback<AskVisit>(
    async (name, rest) => {
      for (let tries = 0; ; tries++) {
        const revision = await upToDate();
        try {
          return await (core as Core).ask(name, { ...rest, visit: id, revision } as never);
        } catch (e) {
          // The log has grown between the two: the question is put again, about what it is now.
          if (tries >= mostTries || !isOutdated(e)) throw e;
        }
      }
    },
    [core, id, upToDate],
  );
  const preview = useCallback<Preview>(
    async (type, body) => {
      const event = made(type, body, { id: uuidv7(), seq: Number.MAX_SAFE_INTEGER });
      return (await ask("visit-preview", { event })).why;
    },
    [made, ask],
  );
  const state = shown?.state ?? (when && !noState ? fetched.data?.state : undefined);
  const visit = useMemo(
    () =>
      core && open && state
        ? { open, state, core, of, ask, write, knows, preview, rejudge, undoing }
        : undefined,
    [core, open, state, of, ask, write, knows, preview, undoing],
  );
  const retry = () => {
    loadAgain();
    void fetched.refetch();
  };
  return { visit, error: fetched.error ?? noCore ?? noState, retry };
}

type Envelope = (type: string, body: object, at: { id: string; seq: number }) => LogEvent;

/** Puts what is written into its envelope. */
function useEnvelope(open: OpenedVisit | undefined, author: string, seen: () => number): Envelope {
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
