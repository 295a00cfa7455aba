// Every point judged and given a protocol, and the order of the search; anew at
// every finding.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

export function useWork({ core, open, state }: LiveVisit, ranking: Schemas["Ranking"]): Schemas["Working"] {
  const { suspects } = ranking;
  return useMemo(() => {
    if (state.points.length === 0 && suspects.length === 0) return { points: [], search: [], led: [] };
    return core.work({ open, state }, suspects);
  }, [core, open, state, suspects]);
}

/** Where this client has felt a spot before, from the second time on. */
export function ownRegions({ open }: LiveVisit, p: { identity?: string } | undefined): Schemas["RegionID"][] {
  const before = open.earlier.find((x) => x.identity === p?.identity);
  return before?.own_referral?.map((x) => x.region) ?? [];
}
