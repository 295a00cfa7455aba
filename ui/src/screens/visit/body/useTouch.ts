// What a touch on the body does at each step.
import { useRef } from "react";
import type { Schemas } from "../../../api/client";
import type { View } from "../../../body/views";
import type { LiveVisit } from "../../../core/useVisit";
import { measured } from "../measure/reading";
import { lineAt } from "../posture/lines";
import { spotAt, toggleSign } from "../signs/spots";
import type { Path } from "../steps";
import type { Aim, MuscleSide, useAiming } from "./useAiming";
import type { useAnswer } from "./useAnswer";
import type { usePlacing } from "./usePlacing";

interface Place {
  x: number;
  y: number;
}

/** So far a touch of an arrow moves the aim. */
export const nudgeMM = 5;

/** An aim at a muscle under the finger, with the earlier spot that lies there. */
async function aimedAt(visit: LiveVisit, aim: Aim, candidate: Aim["candidate"]): Promise<Aim> {
  if (!candidate) return { ...aim, candidate, identity: undefined };
  const { muscle, side, place } = candidate;
  const { identity } = await visit.ask("visit-same-spot", { muscle, side, place });
  return { ...aim, candidate, identity };
}

/** The point of this visit that is charted at a usual place. */
const pointAt = ({ points }: Schemas["State"], m: MuscleSide, site: string) =>
  points.find((p) => p.muscle === m.muscle && p.side === m.side && p.site === site);

/** Aiming: what lies under a place is asked for, and an older answer never shows over a newer. */
function useAimAt(
  visit: LiveVisit,
  height: number,
  aiming: ReturnType<typeof useAiming>,
  answering: ReturnType<typeof useAnswer>,
) {
  const { core } = visit;
  const latest = useRef(0);
  const underAt = (view: View, p: Place) => core.ask("under", { view, x: p.x, y: p.y, height_cm: height });
  /** Shows an aim, unless another touch has come meanwhile. */
  const show = async (aim: Promise<Aim>) => {
    latest.current += 1;
    const mine = latest.current;
    const found = await aim;
    if (mine === latest.current) aiming.setAim(found);
  };
  const aimAt = (view: View, p: Place, wanted?: MuscleSide, nudged?: Aim) => {
    if (!nudged) {
      aiming.setSelected(undefined);
      answering.begin();
    }
    const touch = nudged?.touch ?? latest.current + 1;
    const find = async () => {
      const under = await underAt(view, p);
      const candidate =
        under.muscles.find((m) => m.muscle === wanted?.muscle && m.side === wanted.side) ?? under.muscles[0];
      return aimedAt(visit, { view, x: p.x, y: p.y, touch, under }, candidate);
    };
    void show(find());
  };
  /** Aims at another of the muscles under the finger. */
  const aimAtOther = (aim: Aim, candidate: Aim["candidate"]) => void show(aimedAt(visit, aim, candidate));
  /** Moves an aim by so much of the body, as it is looked at; the muscle stays while it lies there. */
  const nudge = (aim: Aim, right: number, down: number) => {
    const by = aim.under ? nudgeMM / aim.under.mm_per_unit : 0;
    aimAt(aim.view, { x: aim.x + right * by, y: aim.y + down * by }, aim.candidate, aim);
  };
  return { underAt, aimAt, aimAtOther, nudge };
}

export function useTouch(
  visit: LiveVisit,
  { step, part, goTo }: Path,
  height: number,
  aiming: ReturnType<typeof useAiming>,
  placing: ReturnType<typeof usePlacing>,
  answering: ReturnType<typeof useAnswer>,
  turn: (view: View) => void,
) {
  const { state, core, write } = visit;
  const { underAt, aimAt, aimAtOther, nudge } = useAimAt(visit, height, aiming, answering);
  const touch = async (view: View, p: Place) => {
    const { feeling, setFeeling } = placing;
    const reading =
      step === "measure" &&
      part === "range" &&
      state.ranges.find((r) => r.movement === feeling?.movement && r.side === feeling.side);
    if (step === "screen") placing.placeAnswer(await underAt(view, p));
    else if (reading) {
      const { region } = await underAt(view, p);
      if (region) write("range-measured", measured(reading, { felt_region: region }));
      setFeeling(undefined);
    } else if (step === "measure" && part === "signs") {
      const spot = spotAt(core, view, p);
      if (spot) toggleSign(visit, spot);
    } else if (step === "measure" && part === "posture") {
      const line = lineAt(core, view, p);
      if (line) placing.setPosture({ measure: line.measure, side: line.side });
    } else if (step === "find" && answering.saying === "touch") {
      const { region } = await underAt(view, p);
      if (region) answering.toggle(region);
    } else {
      aimAt(view, p);
      if (step !== "find") goTo("find");
    }
  };
  const drop = async (view: View, point: string, p: Place) => {
    const old = state.points.find((x) => x.point === point);
    if (!old) return;
    const { muscles } = await underAt(view, p);
    const c = muscles.find((m) => m.muscle === old.muscle && m.side === old.side);
    if (c) write("point-moved", { point, figure: old.figure, view, x: p.x, y: p.y, place: c.place });
  };
  /** Shows where a point of an earlier visit was, to chart it again. */
  const lookAt = (p: Schemas["FoundPoint"]) => {
    turn(p.view);
    aimAt(p.view, p, p);
  };
  /** Aims at a usual place of a suspect's points, with that muscle under the finger; a point of
   * this visit that was charted there is opened. */
  const aimAtSite = (s: Schemas["SitePlace"], suspect: MuscleSide) => {
    turn(s.view);
    const there = pointAt(state, suspect, s.site);
    if (there) {
      aiming.setSelected(there.point);
      return answering.begin(there);
    }
    aimAt(s.view, s, suspect);
  };
  return { touch, drop, lookAt, aimAtSite, aimAtOther, nudge };
}
