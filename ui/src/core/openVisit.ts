// A visit as the server has it, or, in an outage, the sealed copy that was kept.
import { type QueryClient, queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, isOutage, must, type Schemas } from "../api/client";
import { clockOffset, serverSaid } from "./clock";
import { keepCopy, openCopy } from "./copies";
import type { LogEvent } from "./events";
import { uuidv7 } from "./ids";
import type { OpenedVisit } from "./openedVisit";
import { outbox } from "./outbox";
import { isLocal } from "./localIDs";
import { openLocal } from "./localVisit";
import "./trial";
import { ofBench } from "./benchVisit";

export type Keeper = Pick<Schemas["Me"], "id" | "name" | "role" | "practice" | "copy_hours">;

export interface Fetched {
  open: OpenedVisit;
  unsent: LogEvent[];
  /** What the server has made of this log; absent where there is more than it has. */
  state?: Schemas["State"];
}

/** Who may open a copy; the rest of "me" changes at every look. */
export function useKeeper({ id, name, role, practice, copy_hours }: Schemas["Me"]): Keeper {
  return useMemo(() => ({ id, name, role, practice, copy_hours }), [id, name, role, practice, copy_hours]);
}

/** However a visit is fetched. */
const once = { staleTime: Number.POSITIVE_INFINITY, retry: false, networkMode: "always" } as const;

/** So long what was fetched ahead waits for the screen that is being drawn. */
const aheadMS = 5_000;

const ahead = (id: string, keeper: Keeper) =>
  queryOptions({
    ...once,
    queryKey: ["visit-ahead", id, keeper.id],
    queryFn: () => fetchVisit(id, keeper),
    gcTime: aheadMS,
  });

/** Fetches a visit before its screen is drawn. */
export const openAhead = (queries: QueryClient, id: string, keeper: Keeper) =>
  queries.prefetchQuery(ahead(id, keeper));

/** What was fetched ahead, for one screen. */
function takeAhead(queries: QueryClient, id: string, keeper: Keeper) {
  const { queryKey } = ahead(id, keeper);
  const there = queries.getQueryData(queryKey);
  queries.removeQueries({ queryKey });
  return there;
}

/** Fetched once for a screen; what is newer comes by the outbox. What another
 * screen fetched is older than what that screen wrote, so it is never reused. */
export function useFetchedVisit(id: string, keeper: Keeper) {
  const queries = useQueryClient();
  const [{ screen, there }] = useState(() => ({ screen: uuidv7(), there: takeAhead(queries, id, keeper) }));
  return useQuery({
    ...once,
    queryKey: ["open-visit", id, keeper, screen],
    queryFn: () => fetchVisit(id, keeper),
    initialData: there,
    gcTime: 0,
  });
}

async function fetchVisit(id: string, keeper: Keeper): Promise<Fetched> {
  ofBench(id); // a reload brings it back
  if (isLocal(id)) return { open: openLocal(id, keeper), unsent: [] };
  const [{ open, fresh }, unsent] = await Promise.all([read(id, keeper), outbox.unsent(id)]);
  return {
    open: { ...open, context: { ...open.context, clock_ms: clockOffset() } },
    unsent,
    state: fresh && unsent.length === 0 ? open.state : undefined,
  };
}

const get = (id: string) => must(api.GET("/api/visits/{id}", { params: { path: { id } } }));

async function read(id: string, keeper: Keeper): Promise<{ open: Schemas["OpenVisit"]; fresh: boolean }> {
  try {
    const open = await get(id);
    serverSaid(open.now_ms);
    // A browser that keeps no copy opens the visit all the same.
    void keepCopy(keeper, id, open).catch(() => undefined);
    return { open, fresh: true };
  } catch (e) {
    const copy = isOutage(e) ? await openCopy(keeper, id) : undefined;
    if (!copy) throw e;
    return { open: copy, fresh: false };
  }
}
