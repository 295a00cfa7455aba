// The core for screens that need it without a visit.
import { queryOptions, useQuery } from "@tanstack/react-query";
import type { Core } from "./core";
import { loadCore } from "./loadCore";

export const coreQuery = queryOptions({
  queryKey: ["core"],
  queryFn: loadCore,
  staleTime: Number.POSITIVE_INFINITY,
  retry: false,
  networkMode: "always",
});

export function useCore(): { core?: Core; error?: Error; retry: () => void } {
  const q = useQuery(coreQuery);
  return { core: q.data, error: q.error ?? undefined, retry: () => void q.refetch() };
}
