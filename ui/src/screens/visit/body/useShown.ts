// What is drawn on the body: points, referral, the suspect.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import type { Mark, Zone } from "../../../body/Figure";
import type { Tie } from "../../../body/Ties";
import { toMark } from "../../../body/marks";
import type { View } from "../../../body/views";
import type { Box } from "../../../body/zoom";
import type { Core } from "../../../core/core";
import type { LiveVisit } from "../../../core/useVisit";
import type { Path } from "../steps";
import type { MuscleSide } from "./useAiming";
import { type Answer, isSaid } from "./useAnswer";

/** Points of earlier visits that were not charted again. */
export function useEarlier({ open, state }: LiveVisit) {
  return useMemo(() => {
    const here = new Set(state.points.map((p) => p.identity));
    return open.earlier.filter((p) => !here.has(p.identity));
  }, [open.earlier, state.points]);
}

export function marksOn(
  view: View,
  { step, part }: Path,
  earlier: Schemas["FoundPoint"][],
  points: Schemas["Point"][],
  work: Schemas["PointWork"][],
): Mark[] {
  if (step === "screen" || (step === "measure" && part !== "range")) return [];
  return [
    ...earlier.filter((p) => p.view === view).map((p) => toMark(p, "earlier")),
    ...points
      .filter((p) => p.view === view)
      .map((p) => toMark(p, work.find((w) => w.point === p.point)?.activity)),
  ];
}

/** The lines from points to what depends on them; where the ruling point lies in
 * another view it is named. */
export function tiesOn(
  view: View,
  points: Schemas["Point"][],
  work: Schemas["PointWork"][],
  selected: string | undefined,
  nameOf: (p: Schemas["Point"]) => string,
): Tie[] {
  return work.flatMap((w) => {
    const ruling = points.find((p) => p.point === w.of);
    const to = points.find((p) => p.point === w.point && p.view === view);
    if (!ruling || !to) return [];
    const from = ruling.view === view ? ruling : undefined;
    return [{ from, name: nameOf(ruling), to, bright: selected === w.point || selected === w.of }];
  });
}

export interface Subject extends MuscleSide {
  site?: string;
}

/** Where the client feels what is aimed at or selected and, once that was said,
 * the usual referral beside it. */
export function useZones(
  core: Core,
  views: View[],
  height: number,
  subject: Subject | undefined,
  answer: Answer | undefined,
) {
  const { muscle, side, site } = subject ?? {};
  const feltKey = (answer?.regions ?? []).join();
  const said = !!answer && isSaid(answer);
  return useMemo(() => {
    const out: Partial<Record<View, Zone[]>> = {};
    if (!muscle || !side || !said) return out;
    const own = (feltKey ? feltKey.split(",") : []) as Schemas["RegionID"][];
    const usual = core.palpate(muscle, side, height, site || undefined).referral.essential;
    const zone = (kind: Zone["kind"], v: View, regions: Schemas["RegionID"][]): Zone => ({
      kind,
      ...core.cells(
        v,
        regions.map((region) => ({ region, side })),
      ),
    });
    for (const v of views) out[v] = [zone("usual", v, usual), ...(own.length ? [zone("felt", v, own)] : [])];
    return out;
  }, [core, muscle, side, site, feltKey, said, views, height]);
}

/** What is to be seen of each view when a muscle is chosen: it, with its usual
 * referral or with where it is felt. */
export function useFits(
  core: Core,
  views: View[],
  chosen: MuscleSide | undefined,
  referral: boolean,
  felt: Schemas["RegionID"][],
) {
  const { muscle, side } = chosen ?? {};
  const feltKey = felt.join();
  return useMemo(() => {
    const regions = (feltKey ? feltKey.split(",") : []) as Schemas["RegionID"][];
    const on = (view: View) => {
      if (!muscle || !side) return undefined;
      const layers = referral ? (["muscles", "referral"] as const) : (["muscles"] as const);
      const { box } = core.layers({ view, layers: [...layers], only: [muscle], side });
      const also = regions.map((region) => ({ region, side }));
      return bothIn(box, also.length > 0 ? boxAround(core.cells(view, also)) : undefined);
    };
    return new Map(views.map((v) => [v, on(v)]));
  }, [core, views, muscle, side, referral, feltKey]);
}

/** The box around two. */
function bothIn(a: Box | undefined, b: Box | undefined): Box | undefined {
  if (!a || !b) return a ?? b;
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

/** So much of the body is seen around points, in view units; points that lie farther
 * apart than this are seen on the whole, not with its head and feet cut off. */
const around = 90;
const apart = 520;

/** What is to be seen of each view when no muscle is chosen: where the visit has been. */
export function usePointsFits(views: View[], points: Schemas["Point"][]) {
  return useMemo(() => {
    const on = (view: View): Box | undefined => {
      const here = points.filter((p) => p.view === view);
      if (here.length === 0) return undefined;
      const [xs, ys] = [here.map((p) => p.x), here.map((p) => p.y)];
      if (Math.max(...ys) - Math.min(...ys) > apart) return undefined;
      const [x, y] = [Math.min(...xs) - around, Math.min(...ys) - around];
      return { x, y, width: Math.max(...xs) + around - x, height: Math.max(...ys) + around - y };
    };
    return new Map(views.map((v) => [v, on(v)]));
  }, [views, points]);
}

/** What is to be seen of each view of an answer of the screening: its regions. */
export function useAsked(core: Core, views: View[], answer: Schemas["ScreenedAnswer"] | undefined) {
  const regions = (answer?.regions ?? []).join();
  const side = answer?.side ?? "midline";
  return useMemo(() => {
    const list = (regions ? regions.split(",") : []) as Schemas["RegionID"][];
    const sides: Schemas["Side"][] = side === "midline" ? ["left", "right"] : [side];
    const wanted = list.flatMap((region) => sides.map((s) => ({ region, side: s })));
    const on = (view: View) => (wanted.length > 0 ? boxAround(core.cells(view, wanted)) : undefined);
    return new Map(views.map((v) => [v, on(v)]));
  }, [core, views, regions, side]);
}

function boxAround({ cells, size }: Schemas["CellsOut"]): Box | undefined {
  const xs = cells.map(([x = 0]) => x);
  const ys = cells.map(([, y = 0]) => y);
  if (xs.length === 0) return undefined;
  const [x, y] = [Math.min(...xs) - size, Math.min(...ys) - size];
  return { x, y, width: Math.max(...xs) + size - x, height: Math.max(...ys) + size - y };
}

/** A suspect laid on the body; its usual referral only while nobody is asked. */
export function useLaid(core: Core, views: View[], laid: MuscleSide | undefined, referral: boolean) {
  const { muscle, side } = laid ?? {};
  return useMemo(() => {
    const on = (view: View) =>
      muscle && side
        ? core.layers({
            view,
            layers: referral ? ["muscles", "referral"] : ["muscles"],
            only: [muscle],
            side,
            depth: 0,
          })
        : undefined;
    return new Map(views.map((v) => [v, on(v)]));
  }, [core, views, muscle, side, referral]);
}
