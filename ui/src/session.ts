// Who is signed in, and what follows from it: whose work is sent, which copies
// may stay, what is read anew.
import { type QueryClient, queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect } from "react";
import { api, isOutage, must, Problem, type Schemas } from "./api/client";
import { serverSaid } from "./core/clock";
import { addToCopy, forgetCopies, tidyCopies } from "./core/copies";
import { forgetMe, keepMe, lastMe } from "./core/lastMe";
import { outbox } from "./core/outbox";
import { sealFor } from "./core/sealing";
import { useIdle } from "./idle";

/** Who is signed in; in an outage, who was here last. */
async function readMe(): Promise<Schemas["Me"]> {
  try {
    const me = await must(api.GET("/api/session"));
    // Before any screen asks for what waits.
    sealFor(me.id, me.outbox_key);
    keepMe(me);
    serverSaid(me.now_ms);
    return me;
  } catch (e) {
    if (e instanceof Problem && e.status === 401) forgetMe();
    const last = isOutage(e) ? lastMe() : undefined;
    if (!last) throw e;
    sealFor(last.id, last.outbox_key);
    return last;
  }
}

const meQuery = queryOptions({
  queryKey: ["me"],
  queryFn: readMe,
  staleTime: 60_000,
  networkMode: "always",
});

/** Asks who is signed in before anything is shown. */
export const whoIsHere = (queries: QueryClient) => queries.fetchQuery(meQuery).catch(() => undefined);

/** Somebody has just signed in. */
export function takeUp(queries: QueryClient, me: Schemas["Me"]) {
  keepMe(me);
  serverSaid(me.now_ms);
  queries.setQueryData(["me"], me);
}

export function useSession() {
  const queries = useQueryClient();
  const me = useQuery(meQuery);
  const who = me.data;
  const id = who?.id;
  const key = who?.outbox_key;
  useEffect(() => outbox.signedIn(id ?? "", key), [id, key]);
  useEffect(() => {
    if (!who) return;
    void tidyCopies(who);
    // Here, not on a screen: between two screens nobody else would hear.
    return outbox.onReceived((visit, events) => {
      const taken = events.filter((e) => e.version);
      if (taken.length > 0) void addToCopy(who, visit, taken);
    });
  }, [who]);
  // What a client's pages show is computed from the record; it is out of date
  // as soon as the record has grown.
  useEffect(
    () =>
      outbox.onReceived(() => {
        queries.removeQueries({ queryKey: ["course"], type: "inactive" });
        void queries.invalidateQueries({ queryKey: ["course"] });
        void queries.invalidateQueries({ queryKey: ["day"] });
      }),
    [queries],
  );
  const signedIn = (m: Schemas["Me"]) => {
    queries.removeQueries({ predicate: (q) => q.queryKey[0] !== "me" });
    takeUp(queries, m);
  };
  const signOut = async () => {
    outbox.signedIn("");
    forgetMe();
    await forgetCopies();
    location.assign("/");
  };
  const lock = useCallback(() => {
    outbox.signedIn("");
    forgetMe();
    void forgetCopies().then(() => queries.resetQueries({ queryKey: ["me"] }));
  }, [queries]);
  useIdle(who?.idle_minutes, lock);
  const signedOut = me.error instanceof Problem && me.error.status === 401;
  return { me: { data: who, error: me.error, signedOut, retry: () => void me.refetch() }, signedIn, signOut };
}
