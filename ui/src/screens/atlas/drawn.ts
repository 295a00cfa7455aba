// What is laid on a view of the atlas.
import type { Schemas } from "../../api/client";
import type { Mark } from "../../body/Figure";
import type { View } from "../../body/views";
import type { AtlasView } from "./useAtlas";

type LayerNames = Schemas["Wanted"]["layers"];

/** The layers that were chosen, as the core names them. */
const chosenLayers = (a: AtlasView) =>
  a.layers.map((l) => (l === "keep off" ? "structures" : l)) as LayerNames;

export function drawnOn(a: AtlasView, view: View): Schemas["Drawn"] {
  const chosen = chosenLayers(a);
  const layers: LayerNames =
    a.mode === "Keep off" ? [...new Set([...chosen, "structures" as const])] : chosen;
  const base = a.core.layers({ view, depth: a.depth, layers });
  const { guide, side } = a;
  if (!guide) return base;
  const mine = a.core.layers({ view, layers: ["muscles", "referral"], only: [guide.muscle], side });
  return {
    ...base,
    strands: [...base.strands.filter((s) => s.muscle !== guide.muscle), ...mine.strands],
    zones: mine.zones,
  };
}

/** What is to be seen of a view: the muscle and its usual referral. */
export const fitOf = ({ core, guide, side }: AtlasView, view: View) =>
  guide && core.layers({ view, layers: ["muscles", "referral"], only: [guide.muscle], side }).box;

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
export function marksOn({ core, guide, side }: AtlasView, own: Schemas["OwnSite"][], view: View): Mark[] {
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
    const at = core.place(s.muscle as Schemas["MuscleID"], side, s.place);
    if (at.view !== view) return [];
    return [{ id: s.id, x: at.x, y: at.y, grade: 0, kind: "latent" as const, label: s.name }];
  });
  return [...usual, ...mine];
}

/** The structures to keep off in the views that are shown, by name. */
export function structuresOf({ core, views }: AtlasView): Schemas["Keep"][] {
  const list = views.flatMap((v) => core.layers({ view: v, layers: ["structures"] }).structures);
  const once = [...new Map(list.map((s) => [s.structure, s])).values()];
  return once.sort((a, b) => a.name.localeCompare(b.name));
}
