// The practice bench for the screens that need it.
import { useQuery } from "@tanstack/react-query";
import { loadBench } from "./loadBench";

export function useBench() {
  const q = useQuery({
    queryKey: ["bench-module"],
    queryFn: loadBench,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
    networkMode: "always",
  });
  return { bench: q.data, error: q.error ?? undefined, retry: () => void q.refetch() };
}
