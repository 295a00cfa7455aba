// Every point judged and given a protocol, and the order of the search; anew at
// every finding.
import type { Schemas } from "../../../api/client";
import { useAskVisit } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";

const none: Schemas["Working"] = { points: [], search: [], led: [] };

export function useWork(visit: LiveVisit, ranking: Schemas["Ranking"]): Schemas["Working"] {
  const { suspects } = ranking;
  const any = visit.state.points.length > 0 || suspects.length > 0;
  return useAskVisit(visit, "visit-work", any ? { suspects } : undefined) ?? none;
}

/** Where this client has felt a spot before, from the second time on. */
export function ownRegions({ open }: LiveVisit, p: { identity?: string } | undefined): Schemas["RegionID"][] {
  const before = open.earlier.find((x) => x.identity === p?.identity);
  return before?.own_referral?.map((x) => x.region) ?? [];
}
