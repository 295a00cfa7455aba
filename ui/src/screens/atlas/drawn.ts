// What is laid on a view of the atlas.
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import type { Mark } from "../../body/Figure";
import type { View } from "../../body/views";
import { useAsk, useAskAll } from "../../core/useAsk";
import type { AtlasView } from "./useAtlas";

type LayerNames = Schemas["LayerRequest"]["layers"];

/** The layers that were chosen, as the core names them. */
const chosenLayers = (a: AtlasView) =>
  a.layers.map((l) => (l === "keep off" ? "structures" : l)) as LayerNames;

/** What is drawn on a view, and what of it is to be seen: the muscle and its usual
 * referral. */
export function useDrawnOn(
  a: AtlasView,
  view: View,
): { drawn?: Schemas["ViewLayers"]; fit?: Schemas["Box"] } {
  const chosen = chosenLayers(a);
  const layers: LayerNames =
    a.mode === "Keep off" ? [...new Set([...chosen, "structures" as const])] : chosen;
  const { core, guide, side } = a;
  const base = useAsk(core, "layers", { view, depth: a.depth, layers });
  const mine = useAsk(core, "layers", guide && muscleOn(view, guide.muscle, side));
  return useMemo(() => {
    if (!guide || !mine || !base) return { drawn: base };
    const strands = [...base.strands.filter((s) => s.muscle !== guide.muscle), ...mine.strands];
    return { drawn: { ...base, strands, zones: mine.zones }, fit: mine.box };
  }, [base, mine, guide]);
}

/** A muscle with its usual referral. */
export const muscleOn = (
  view: View,
  muscle: Schemas["MuscleID"],
  side: Schemas["Side"],
): Schemas["LayerRequest"] => ({ view, layers: ["muscles", "referral"], only: [muscle], side });

/** Where the same view is to be had as a file. */
export function svgOf({ guide, second, side, depth, ...a }: AtlasView, view: View): string {
  const wanted = [
    ...chosenLayers({ guide, second, side, depth, ...a }),
    ...(guide ? ["muscles", "referral"] : []),
  ];
  const layers = [...new Set(wanted)].join(",");
  const only = [guide?.muscle, second?.muscle].filter(Boolean).join(",");
  const which = guide ? `&only=${only}&side=${side}` : `&depth=${depth}`;
  return `/api/figure/${view}/svg?layers=${layers}${which}`;
}

/** The usual sites of the muscle, and the practice's own. */
export function useMarksOn({ core, guide, side }: AtlasView, own: Schemas["OwnSite"][], view: View): Mark[] {
  const places = useAskAll(
    core,
    "place",
    Object.fromEntries(
      own.map((s) => [s.id, { muscle: s.muscle as Schemas["MuscleID"], side, place: s.place }]),
    ),
  );
  const usual = (guide?.sites ?? [])
    .filter((s) => s.view === view)
    .map((s) => ({
      id: s.site,
      x: s.x,
      y: s.y,
      grade: 0,
      kind: "active" as const,
      label: s.name,
      angle: (guide?.trace_deg ?? 90) - 90,
    }));
  const mine = own.flatMap((s) => {
    const at = places?.[s.id];
    if (at?.view !== view) return [];
    return [{ id: s.id, x: at.x, y: at.y, grade: 0, kind: "latent" as const, label: s.name }];
  });
  return [...usual, ...mine];
}

/** The structures to keep off in the views that are shown, by name. */
export function useStructures({ core, views }: AtlasView): Schemas["Keep"][] {
  const asked = views.map((view): [string, Schemas["LayerRequest"]] => [
    view,
    { view, layers: ["structures"] },
  ]);
  const drawn = useAskAll(core, "layers", Object.fromEntries(asked)) ?? {};
  const list = Object.values(drawn).flatMap((d) => d.structures);
  const once = [...new Map(list.map((s) => [s.structure, s])).values()];
  return once.sort((a, b) => a.name.localeCompare(b.name));
}
