// The suspects, ranked anew at every finding.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { api, must, type Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

const none: Record<string, Schemas["Ratio"]> = {};

/** The practice's own likelihood ratios. */
export const useWeights = () =>
  useQuery({ queryKey: ["weights"], staleTime: 60_000, queryFn: () => must(api.GET("/api/evidence")) }).data
    ?.weights ?? none;

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
export function useRanking({ core, open, state }: LiveVisit, looked: boolean): Schemas["Ranking"] {
  const weights = useWeights();
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const soon = setTimeout(() => setShown(true), settledMS);
    return () => clearTimeout(soon);
  }, []);
  const wanted = looked || shown;
  return useMemo(
    () => (wanted ? core.suspects(open.context, state, open.earlier, weights, open.visit.starts_at) : nobody),
    [core, open, state, weights, wanted],
  );
}
