// What is drawn on the body: points, referral, the suspect.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import type { Mark, Zone } from "../../../body/Figure";
import type { Tie } from "../../../body/Ties";
import { toMark } from "../../../body/marks";
import type { View } from "../../../body/views";
import type { Box } from "../../../body/zoom";
import type { Core } from "../../../core/core";
import { useAskAll } from "../../../core/useAsk";
import { useGuide } from "../../../core/useGuide";
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
  const guide = useGuide(core, muscle && side && said ? { muscle, side, site } : undefined, height);
  const asked = useMemo(() => {
    const own = (feltKey ? feltKey.split(",") : []) as Schemas["RegionID"][];
    const usual = guide?.referral.essential ?? [];
    const of = (view: View, regions: Schemas["RegionID"][]) => ({
      view,
      regions: regions.map((region) => ({ region, side: side as Schemas["Side"] })),
    });
    if (!guide) return {};
    return Object.fromEntries(
      views.flatMap((v) => [
        [`${v} usual`, of(v, usual)],
        ...(own.length ? [[`${v} felt`, of(v, own)] as const] : []),
      ]),
    );
  }, [guide, side, feltKey, views]);
  const cells = useAskAll(core, "cells", asked);
  return useMemo(() => {
    const out: Partial<Record<View, Zone[]>> = {};
    if (!cells || !guide) return out;
    for (const v of views)
      out[v] = (["usual", "felt"] as const).flatMap((kind) => {
        const of = cells[`${v} ${kind}`];
        return of ? [{ kind, ...of }] : [];
      });
    return out;
  }, [cells, guide, views]);
}

/** What is to be seen of each view when a muscle is chosen: it, with its usual
 * referral or with where it is felt. */
export function useMuscleFit(
  core: Core,
  views: View[],
  chosen: MuscleSide | undefined,
  referral: boolean,
  felt: Schemas["RegionID"][],
) {
  const { muscle, side } = chosen ?? {};
  const of = muscle && side ? { muscle, side } : undefined;
  const drawn = useAskAll(core, "layers", of ? byView(views, (view) => layersOf(view, of, referral)) : {});
  const regions = felt.map((region) => ({ region, side: side ?? "midline" }));
  const also = useAskAll(
    core,
    "cells",
    of && regions.length ? byView(views, (view) => ({ view, regions })) : {},
  );
  return useMemo(
    () => new Map(views.map((v) => [v, bothIn(drawn?.[v]?.box, boxAround(also?.[v]))])),
    [views, drawn, also],
  );
}

/** A question for each view. */
const byView = <T>(views: View[], of: (view: View) => T) =>
  Object.fromEntries(views.map((v) => [v, of(v)])) as Record<string, T>;

/** A muscle, with or without its usual referral, on a view. */
const layersOf = (view: View, { muscle, side }: MuscleSide, referral: boolean): Schemas["LayerRequest"] => ({
  view,
  layers: referral ? ["muscles", "referral"] : ["muscles"],
  only: [muscle],
  side,
});

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
export function usePointsFit(views: View[], points: Schemas["Point"][]) {
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
export function useAnswerFit(core: Core, views: View[], answer: Schemas["ScreenedAnswer"] | undefined) {
  const regions = (answer?.regions ?? []).join();
  const side = answer?.side ?? "midline";
  const asked = useMemo(() => {
    const list = (regions ? regions.split(",") : []) as Schemas["RegionID"][];
    const sides: Schemas["Side"][] = side === "midline" ? ["left", "right"] : [side];
    const wanted = list.flatMap((region) => sides.map((s) => ({ region, side: s })));
    return wanted.length > 0 ? byView(views, (view) => ({ view, regions: wanted })) : {};
  }, [views, regions, side]);
  const cells = useAskAll(core, "cells", asked);
  return useMemo(() => new Map(views.map((v) => [v, boxAround(cells?.[v])])), [views, cells]);
}

function boxAround(of: Schemas["CellsOut"] | undefined): Box | undefined {
  if (!of) return undefined;
  const { cells, size } = of;
  const xs = cells.map(([x = 0]) => x);
  const ys = cells.map(([, y = 0]) => y);
  if (xs.length === 0) return undefined;
  const [x, y] = [Math.min(...xs) - size, Math.min(...ys) - size];
  return { x, y, width: Math.max(...xs) + size - x, height: Math.max(...ys) + size - y };
}

/** A suspect laid on the body; its usual referral only while nobody is asked. */
export function useMuscleShape(core: Core, views: View[], laid: MuscleSide | undefined, referral: boolean) {
  const { muscle, side } = laid ?? {};
  const of = muscle && side ? { muscle, side } : undefined;
  const drawn = useAskAll(core, "layers", of ? byView(views, (view) => layersOf(view, of, referral)) : {});
  return useMemo(() => new Map(views.map((v) => [v, drawn?.[v]])), [views, drawn]);
}
