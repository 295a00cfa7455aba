// A visit as the server has it, or, when there is no answer at all, the sealed
// copy that was kept.
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, must, Problem, type Schemas } from "../api/client";
import { clockOffset, serverSaid } from "./clock";
import { keepCopy, openCopy } from "./copies";
import type { LogEvent } from "./events";
import { uuidv7 } from "./ids";
import { outbox } from "./outbox";

export type Keeper = Pick<Schemas["Me"], "id" | "practice" | "copy_hours">;

export interface Fetched {
  open: Schemas["OpenVisit"];
  unsent: LogEvent[];
}

/** Who may open a copy; the rest of "me" changes at every look. */
export function useKeeper({ id, practice, copy_hours }: Schemas["Me"]): Keeper {
  return useMemo(() => ({ id, practice, copy_hours }), [id, practice, copy_hours]);
}

/** Fetched once for a screen; what is newer comes by the outbox. What another
 * screen fetched is older than what that screen wrote, so it is never reused. */
export function useFetchedVisit(id: string, keeper: Keeper) {
  const [screen] = useState(uuidv7);
  return useQuery({
    queryKey: ["open-visit", id, keeper, screen],
    queryFn: async (): Promise<Fetched> => {
      const open = await read(id, keeper);
      const unsent = await outbox.unsent(id);
      return { open: { ...open, context: { ...open.context, clock_ms: clockOffset() } }, unsent };
    },
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    retry: false,
    networkMode: "always",
  });
}

async function read(id: string, keeper: Keeper): Promise<Schemas["OpenVisit"]> {
  try {
    const v = await must(api.GET("/api/visits/{id}", { params: { path: { id } } }));
    serverSaid(v.now_ms);
    await keepCopy(keeper, id, v);
    return v;
  } catch (e) {
    // Only no answer at all is an outage; a "no" is a no.
    const copy = e instanceof Problem && e.status === 0 ? await openCopy(keeper, id) : undefined;
    if (!copy) throw e;
    return copy;
  }
}
