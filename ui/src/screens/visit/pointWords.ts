// A point in words: its muscle and side, and its place in the muscle, for two points
// of one muscle are told apart by nothing else.
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { useAskAll } from "../../core/useAsk";
import { guideOf } from "../../core/useGuide";
import { heightOf } from "../../core/height";
import type { LiveVisit } from "../../core/useVisit";
import { plain, sentence } from "../../parts/words";

type At = Pick<Schemas["Point"], "muscle" | "side" | "site">;

/** The atlas's name of a muscle. */
export function muscleName(core: Core, muscle: string): string {
  return core.lists.muscles.find((m) => m.id === muscle)?.name ?? sentence(plain(muscle));
}

/** "Soleus, left". */
export const pointName = (core: Core, p: Omit<At, "site">) => `${muscleName(core, p.muscle)}, ${p.side}`;

/** The usual sites that places lie at, in words, by key; none for a place of its own. */
function useSites(core: Core, places: Map<string, At>, heightCM: number): Map<string, string> {
  const asked = [...places].filter(([, p]) => p.site).map(([k, p]) => [k, guideOf(p, heightCM)] as const);
  const guides = useAskAll(core, "palpate", Object.fromEntries(asked));
  return useMemo(
    () => new Map(Object.entries(guides ?? {}).map(([k, g]) => [k, g.sites[0]?.name ?? ""])),
    [guides],
  );
}

/** The usual sites of the points of a visit. */
export const useSiteNames = (core: Core, points: Schemas["Point"][], heightCM: number) =>
  useSites(core, new Map(points.map((p) => [p.point, p])), heightCM);

/** "Soleus, left · Lower, a little inward, where the belly ends", by key. */
function useWords({ core, open }: LiveVisit, places: Map<string, At>): Map<string, string> {
  const sites = useSites(core, places, heightOf(open.client));
  return new Map(
    [...places].map(([k, p]) => [k, [pointName(core, p), sites.get(k)].filter(Boolean).join(" · ")]),
  );
}

/** The points of a visit in words. */
export const usePointWords = (visit: LiveVisit) =>
  useWords(visit, new Map(visit.state.points.map((p) => [p.point, p])));

/** Points that a visit has left, in words. */
export const useLeftWords = (visit: LiveVisit, points: Schemas["LeftPoint"][]) =>
  useWords(visit, new Map(points.map((p) => [p.point, p])));

/** Points of earlier visits in words, by their identity. */
export const useEarlierWords = (visit: LiveVisit, points: Schemas["FoundPoint"][]) =>
  useWords(visit, new Map(points.map((p) => [p.identity ?? "", p])));
