// What the body shows at each step, and what a touch on it does.
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { pairOf, pairs, type View } from "../../body/BodySvg";
import { fromStrokes } from "../../body/drawing";
import type { Mark, Zone } from "../../body/Figure";
import { toMark } from "../../body/marks";
import { firstTool } from "../../body/PainTools";
import type { LiveVisit } from "../../core/useVisit";
import type { Aim } from "./FindStep";
import { type Feeling, measured } from "./MeasureStep";
import { spotAt, toggleSign } from "./Signs";
import type { Path } from "./steps";

export interface MuscleSide {
  muscle: string;
  side: string;
}
interface Place {
  x: number;
  y: number;
}

export type Body = ReturnType<typeof useBody>;

const bothSides: View[] = ["front", "back"];

export function useBody(
  visit: LiveVisit,
  { step, part, goTo }: Path,
  likeliest: Schemas["Suspect"] | undefined,
) {
  const { open, state, core, write } = visit;
  const [pair, setPair] = useState("Body");
  const [tool, setTool] = useState(firstTool);
  /** The visit whose drawing lies under this one's. */
  const [compare, setCompare] = useState<string>();
  /** The question whose regions a touch adds to. */
  const [placing, setPlacing] = useState<string>();
  /** The reading whose felt place a touch says. */
  const [feeling, setFeeling] = useState<Feeling>();
  const [aim, setAim] = useState<Aim>();
  const [selected, setSelected] = useState<string>();
  const [chosen, setChosen] = useState<MuscleSide>();
  const height = open.client.height_cm ?? 170;
  const views: View[] = pairs[pair] ?? bothSides;
  const marking = step === "measure" && part === "signs";

  const drawing = useMemo(() => fromStrokes(state.drawing), [state.drawing]);
  const before = useMemo(() => {
    const d = open.earlier_drawings.find((x) => x.visit === compare);
    return d && fromStrokes(d.strokes);
  }, [open.earlier_drawings, compare]);

  const earlier = useMemo(() => {
    const here = new Set(state.points.map((p) => p.identity));
    const seen = new Set<string>();
    return open.earlier.filter(
      (p) => !here.has(p.identity) && !seen.has(p.identity ?? "") && seen.add(p.identity ?? ""),
    );
  }, [open.earlier, state.points]);
  const marksOn = (view: View): Mark[] => {
    if (step === "screen" || (step === "measure" && part !== "range")) return [];
    return [
      ...earlier.filter((p) => p.view === view).map((p) => toMark(p, true)),
      ...state.points.filter((p) => p.view === view).map((p) => toMark(p)),
    ];
  };

  // The usual referral of what is aimed at or selected, and this client's own.
  const shown = state.points.find((p) => p.point === selected);
  const subject = aim?.candidate ?? shown;
  const felt = aim ? aim.felt : (shown?.referral ?? []);
  const feltKey = felt.join();
  const { muscle, side, site } = subject ?? {};
  const zones = useMemo(() => {
    const out: Record<string, Zone[]> = {};
    if (!muscle || !side) return out;
    const ownRegions = feltKey ? feltKey.split(",") : [];
    const g = core.palpate(muscle, side, height, site || undefined);
    for (const v of views) {
      const usual = core.cells(
        v,
        g.referral.essential.map((region) => ({ region, side })),
      );
      const own = ownRegions.length
        ? core.cells(
            v,
            ownRegions.map((region) => ({ region, side })),
          )
        : undefined;
      out[v] = [
        { kind: "usual", size: usual.size, cells: usual.cells },
        ...(own ? [{ kind: "felt" as const, size: own.size, cells: own.cells }] : []),
      ];
    }
    return out;
  }, [core, muscle, side, site, feltKey, views, height]);

  // The suspect laid on the body: the chosen or likeliest one, and the chosen
  // one again where it is to be found.
  const laid =
    step === "suspect"
      ? (chosen ?? (likeliest && likeliest.confidence > 0.1 ? likeliest : undefined))
      : step === "find" && !subject
        ? chosen
        : undefined;
  const laidMuscle = laid?.muscle;
  const laidSide = laid?.side;
  const suspected = useMemo(() => {
    const on = (view: View) =>
      laidMuscle === undefined
        ? undefined
        : core.layers({
            view,
            layers: ["muscles", "referral"],
            only: [laidMuscle],
            side: laidSide,
          } as Schemas["Wanted"]);
    return new Map(views.map((v) => [v, on(v)]));
  }, [core, views, laidMuscle, laidSide]);

  /** Says where an answer of the screening holds; what an earlier visit said of
   * it stays. */
  const placeAnswer = (found: Schemas["UnderOut"]) => {
    const own = state.answers.find((x) => x.question === placing);
    const base = own ?? open.context.carried.find((x) => x.question === placing);
    if (!base || !found.region || base.regions?.includes(found.region)) return;
    const side = base.side && base.side !== found.side ? "midline" : found.side;
    write("screening-answered", {
      answers: [
        {
          question: base.question,
          answer: base.answer,
          ...(own?.since ? { since: own.since } : {}),
          ...(own?.note ? { note: own.note } : {}),
          side,
          regions: [...(base.regions ?? []), found.region],
        },
      ],
    });
  };
  const touch = (view: View, p: Place) => {
    const found = core.under(view, p.x, p.y, height);
    const reading =
      step === "measure" &&
      part === "range" &&
      state.ranges.find((r) => r.movement === feeling?.movement && r.side === feeling.side);
    if (step === "screen") placeAnswer(found);
    else if (reading) {
      if (found.region) write("range-measured", measured(reading, { felt_region: found.region }));
      setFeeling(undefined);
    } else if (marking) {
      const spot = spotAt(core, view, p);
      if (spot) toggleSign(visit, spot);
    } else {
      setSelected(undefined);
      setAim({ view, ...p, under: found, candidate: found.muscles[0], felt: [] });
      if (step !== "find") goTo("find");
    }
  };
  /** A point of this visit is selected; one of an earlier visit is charted again. */
  const select = (view: View, point: string) => {
    const old = earlier.find((p) => p.point === point);
    if (old) {
      touch(view, old);
      return;
    }
    setAim(undefined);
    setSelected(point);
  };
  const drop = (view: View, point: string, p: Place) => {
    const old = state.points.find((x) => x.point === point);
    const c =
      old &&
      core.under(view, p.x, p.y, height).muscles.find((m) => m.muscle === old.muscle && m.side === old.side);
    if (c) write("point-moved", { point, figure: old.figure, view, x: p.x, y: p.y, place: c.place });
  };
  /** Aims at a usual place of a suspect's points, with that muscle under the finger. */
  const aimAtSite = (s: Schemas["SitePlace"], suspect: MuscleSide) => {
    const view = s.view as View;
    const under = core.under(view, s.x, s.y, height);
    setPair(pairOf(view));
    setAim({
      view,
      x: s.x,
      y: s.y,
      under,
      candidate:
        under.muscles.find((m) => m.muscle === suspect.muscle && m.side === suspect.side) ?? under.muscles[0],
      felt: [],
    });
  };

  return {
    pair,
    setPair,
    views,
    height,
    marking,
    drawing,
    before,
    tool,
    setTool,
    compare,
    setCompare,
    placing,
    setPlacing,
    feeling,
    setFeeling,
    aim,
    setAim,
    selected,
    setSelected,
    chosen,
    setChosen,
    subject,
    marksOn,
    zones,
    suspected,
    touch,
    select,
    drop,
    aimAtSite,
  };
}
