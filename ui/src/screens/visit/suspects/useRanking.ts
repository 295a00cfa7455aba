// The suspects, ranked anew at every finding.
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, must, type Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

const none: Record<string, Schemas["Ratio"]> = {};

/** The practice's own likelihood ratios. */
export const useWeights = () =>
  useQuery({ queryKey: ["weights"], staleTime: 60_000, queryFn: () => must(api.GET("/api/evidence")) }).data
    ?.weights ?? none;

export function useRanking({ core, open, state }: LiveVisit): Schemas["Ranking"] {
  const weights = useWeights();
  return useMemo(
    () => core.suspects(open.context, state, open.earlier, weights, open.visit.starts_at),
    [core, open, state, weights],
  );
}
