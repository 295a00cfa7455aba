// What a touch on the body does at each step.
import type { Schemas } from "../../../api/client";
import { pairOf, type View } from "../../../body/views";
import type { LiveVisit } from "../../../core/useVisit";
import { measured } from "../measure/reading";
import { spotAt, toggleSign } from "../signs/spots";
import type { Path } from "../steps";
import type { MuscleSide, useAiming } from "./useAiming";
import type { useAnswer } from "./useAnswer";
import type { usePlacing } from "./usePlacing";

interface Place {
  x: number;
  y: number;
}

export function useTouch(
  visit: LiveVisit,
  { step, part, goTo }: Path,
  height: number,
  aiming: ReturnType<typeof useAiming>,
  placing: ReturnType<typeof usePlacing>,
  answering: ReturnType<typeof useAnswer>,
  setPair: (pair: string) => void,
) {
  const { state, core, write } = visit;
  const aimAt = (view: View, p: Place, wanted?: MuscleSide) => {
    const under = core.under(view, p.x, p.y, height);
    const candidate =
      under.muscles.find((m) => m.muscle === wanted?.muscle && m.side === wanted.side) ?? under.muscles[0];
    aiming.setSelected(undefined);
    aiming.setAim({ view, x: p.x, y: p.y, under, candidate });
    answering.begin();
  };
  const touch = (view: View, p: Place) => {
    const { feeling, setFeeling } = placing;
    const found = () => core.under(view, p.x, p.y, height);
    const reading =
      step === "measure" &&
      part === "range" &&
      state.ranges.find((r) => r.movement === feeling?.movement && r.side === feeling.side);
    if (step === "screen") placing.placeAnswer(found());
    else if (reading) {
      const { region } = found();
      if (region) write("range-measured", measured(reading, { felt_region: region }));
      setFeeling(undefined);
    } else if (step === "measure" && part === "signs") {
      const spot = spotAt(core, view, p);
      if (spot) toggleSign(visit, spot);
    } else if (step === "find" && answering.saying === "touch") {
      const { region } = found();
      if (region) answering.toggle(region);
    } else {
      aimAt(view, p);
      if (step !== "find") goTo("find");
    }
  };
  const drop = (view: View, point: string, p: Place) => {
    const old = state.points.find((x) => x.point === point);
    const c =
      old &&
      core.under(view, p.x, p.y, height).muscles.find((m) => m.muscle === old.muscle && m.side === old.side);
    if (c) write("point-moved", { point, figure: old.figure, view, x: p.x, y: p.y, place: c.place });
  };
  /** Shows where a point of an earlier visit was, to chart it again. */
  const lookAt = (p: Schemas["FoundPoint"]) => {
    setPair(pairOf(p.view));
    aimAt(p.view, p, p);
  };
  /** Aims at a usual place of a suspect's points, with that muscle under the finger. */
  const aimAtSite = (s: Schemas["SitePlace"], suspect: MuscleSide) => {
    setPair(pairOf(s.view));
    aimAt(s.view, s, suspect);
  };
  return { touch, drop, lookAt, aimAtSite };
}
