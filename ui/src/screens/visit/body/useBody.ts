// The body at each step: its views, what is drawn, and what a touch does.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { pairOf, pairs, type View } from "../../../body/views";
import type { LiveVisit } from "../../../core/useVisit";
import type { Path } from "../steps";
import { type MuscleSide, useAiming } from "./useAiming";
import { usePainting } from "./usePainting";
import { usePlacing } from "./usePlacing";
import { marksOn, useAsked, useEarlier, useFits, useLaid, useZones } from "./useShown";
import { useTouch } from "./useTouch";

export type Body = ReturnType<typeof useBody>;

const bothSides: View[] = ["front", "back"];
/** A client whose height is not known. */
const usualHeightCM = 170;

export function useBody(visit: LiveVisit, path: Path, likeliest: Schemas["Suspect"] | undefined) {
  const { open, state, core } = visit;
  const [pair, setPair] = useState("Body");
  const views = pairs[pair] ?? bothSides;
  const height = open.client.height_cm ?? usualHeightCM;
  const aiming = useAiming();
  const placing = usePlacing(visit);
  const painting = usePainting(visit);
  const earlier = useEarlier(visit);
  const { touch, drop, lookAt, aimAtSite } = useTouch(visit, path, height, aiming, placing, setPair);

  const { aim, chosen } = aiming;
  const shown = state.points.find((p) => p.point === aiming.selected);
  const subject = aim?.candidate ?? shown;
  const zones = useZones(core, views, height, subject, aim ? aim.felt : (shown?.referral ?? []));
  // The chosen or likeliest suspect, and the chosen one again where it is to be
  // found.
  const likely = likeliest && likeliest.confidence > 0.1 ? likeliest : undefined;
  const sought = path.step === "find" && !subject ? chosen : undefined;
  const suspected = useLaid(core, views, path.step === "suspect" ? (chosen ?? likely) : sought);

  const pressed = path.step === "press" ? state.points.at(-1) : undefined;
  const near = aim || path.step === "measure" ? undefined : (shown ?? pressed ?? chosen);
  const muscleFits = useFits(core, views, near, path.step === "press");
  const askedFits = useAsked(core, views, placing.asked);
  const fits = path.step === "screen" ? askedFits : muscleFits;

  /** A muscle is chosen; the body turns to where it is seen. */
  const setChosen = (c: MuscleSide | undefined) => {
    aiming.setChosen(c);
    const seen = c && views.some((v) => core.layers({ view: v, layers: ["muscles"], only: [c.muscle] }).box);
    const first = c && core.palpate(c.muscle, c.side, height).sites[0];
    if (first && !seen) setPair(pairOf(first.view));
  };
  /** A point of this visit is selected; one of an earlier visit is charted again. */
  const select = (view: View, point: string) => {
    const old = earlier.find((p) => p.point === point);
    if (old) touch(view, old);
    else aiming.setSelected(point);
  };
  return {
    pair,
    setPair,
    views,
    height,
    marking: path.step === "measure" && path.part === "signs",
    ...aiming,
    setChosen,
    placing,
    painting,
    subject,
    marksOn: (view: View) => marksOn(view, path, earlier, state.points),
    zones,
    suspected,
    fits,
    touch,
    select,
    drop,
    lookAt,
    earlier,
    aimAtSite,
  };
}
