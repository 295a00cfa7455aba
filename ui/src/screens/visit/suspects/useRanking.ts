// The suspects, ranked anew at every finding.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, must, type Schemas } from "../../../api/client";
import { useAskVisit } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";

const none: Record<string, Schemas["Ratio"]> = {};

/** The practice's own likelihood ratios; none before they are there. */
export function useWeights(enabled = true) {
  const queryFn = () => must(api.GET("/api/evidence"));
  return useQuery({ queryKey: ["weights"], staleTime: 60_000, queryFn, enabled }).data?.weights ?? none;
}

const nobody: Schemas["Ranking"] = {
  suspects: [],
  next_tests: [],
  tests_today: [],
  missing: [],
  notes: [],
  threshold: 1,
};

/** By then the body is drawn. */
const settledMS = 600;

/** The first ranking reads the whole atlas; unless it is what one looks at, the
 * visit is shown before. */
export function useRanking(visit: LiveVisit, looked: boolean): Schemas["Ranking"] {
  const weights = useWeights(!!visit.of); // before the core is there nothing can be ranked
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const soon = setTimeout(() => setShown(true), settledMS);
    return () => clearTimeout(soon);
  }, []);
  const wanted = looked || shown;
  const starts_ms = Date.parse(visit.open.visit.starts_at);
  return useAskVisit(visit, "visit-ranking", wanted ? { weights, starts_ms } : undefined) ?? nobody;
}
