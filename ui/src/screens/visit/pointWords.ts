// A point in words: its muscle and side, and its place in the muscle, for two points
// of one muscle are told apart by nothing else.
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { heightOf } from "../../core/height";
import type { LiveVisit } from "../../core/useVisit";
import { plain, sentence } from "../../parts/words";

type At = Pick<Schemas["Point"], "muscle" | "side" | "site">;

const names = new WeakMap<Core, Map<string, string>>();

/** The atlas's name of a muscle. */
export function muscleName(core: Core, muscle: string): string {
  let known = names.get(core);
  if (!known) {
    known = new Map(core.atlas({}).map((m) => [m.id, m.name]));
    names.set(core, known);
  }
  return known.get(muscle) ?? sentence(plain(muscle));
}

/** "Soleus, left". */
export const pointName = (core: Core, p: Omit<At, "site">) => `${muscleName(core, p.muscle)}, ${p.side}`;

/** The usual site a point lies at, in words; "" for its own place. */
export const siteName = (core: Core, p: At, heightCM: number) =>
  p.site ? (core.palpate(p.muscle, p.side, heightCM, p.site).sites[0]?.name ?? "") : "";

/** "Soleus, left · Lower, a little inward, where the belly ends". */
export const pointWords = (core: Core, p: At, heightCM: number) =>
  [pointName(core, p), siteName(core, p, heightCM)].filter(Boolean).join(" · ");

/** The points of a visit in words. */
export function usePointWords({ core, state, open }: LiveVisit) {
  const height = heightOf(open.client);
  return useMemo(
    () => new Map(state.points.map((p) => [p.point, pointWords(core, p, height)])),
    [core, state.points, height],
  );
}
