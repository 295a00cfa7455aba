// Every point judged and given a protocol, and the order of the search; anew at
// every finding.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

export function useWork({ core, open, state }: LiveVisit, ranking: Schemas["Ranking"]): Schemas["Working"] {
  const { suspects } = ranking;
  return useMemo(() => {
    if (state.points.length === 0 && suspects.length === 0) return { points: [], search: [] };
    return core.work({ open, state }, suspects);
  }, [core, open, state, suspects]);
}

/** Where this client has felt a spot before, from the second time on. */
export function ownRegions({ open }: LiveVisit, p: { identity?: string } | undefined): Schemas["RegionID"][] {
  const before = open.earlier.find((x) => x.identity === p?.identity);
  const times = new Map<Schemas["RegionID"], number>();
  for (const a of before?.answers ?? [])
    for (const x of a.places) times.set(x.region, (times.get(x.region) ?? 0) + 1);
  return [...times].filter(([, n]) => n > 1).map(([r]) => r);
}
