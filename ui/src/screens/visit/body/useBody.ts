// The body at each step: its views, what is drawn, and what a touch does.
import type { Schemas } from "../../../api/client";
import type { View } from "../../../body/views";
import { heightOf } from "../../../core/height";
import type { LiveVisit } from "../../../core/useVisit";
import { pointName, useSiteNames } from "../pointWords";
import type { Path } from "../steps";
import { useMainViews } from "../../../body/useMainViews";
import { useAiming } from "./useAiming";
import { usePainting } from "./usePainting";
import { usePlacing } from "./usePlacing";
import { useDrawn } from "./useDrawn";
import { marksOn, tiesOn, useEarlier } from "./useBodyLayers";
import { useAnswer } from "./useAnswer";
import { useTouch } from "./useTouch";
import { useWanted } from "./useWanted";

export type Body = ReturnType<typeof useBody>;

export function useBody(
  visit: LiveVisit,
  path: Path,
  likeliest: Schemas["Suspect"] | undefined,
  work: Schemas["PointWork"][],
) {
  const { open, state, core } = visit;
  const height = heightOf(open.client);
  const aiming = useAiming();
  const placing = usePlacing(visit);
  const painting = usePainting(visit);
  const answering = useAnswer();
  const earlier = useEarlier(visit);
  const main = useMainViews(
    core,
    useWanted(visit, path, { aiming, answering, painting, earlier, likeliest }),
  );
  const { views } = main;
  const { touch, drop, lookAt, aimAtSite, aimAtOther, nudge } = useTouch(
    visit,
    path,
    height,
    aiming,
    placing,
    answering,
    main.turn,
  );

  const drawn = useDrawn(visit, path, { views, height, aiming, placing, answering, likeliest, work });
  const { openPoint, leave } = opening(aiming, answering, state);
  /** A point of this visit is selected; one of an earlier visit is charted again. */
  const select = (view: View, point: string) => {
    const old = earlier.find((p) => p.point === point);
    return old ? touch(view, old) : openPoint(point);
  };
  const siteNames = useSiteNames(core, state.points, height);
  const nameOf = (p: Pick<Schemas["Point"], "muscle" | "side">) => pointName(core, p);
  return {
    main,
    height,
    marking: path.step === "measure" && path.part === "signs",
    ...aiming,
    leave,
    placing,
    painting,
    answering,
    marksOn: (view: View) => marksOn(view, path, earlier, state.points, work),
    tiesOn: (view: View) =>
      path.step === "plan" || path.step === "press"
        ? tiesOn(view, state.points, work, aiming.selected, nameOf)
        : [],
    nameOf,
    siteOf: (p: Schemas["Point"]) => siteNames.get(p.point) ?? "",
    ...drawn,
    touch,
    open: openPoint,
    select,
    drop,
    lookAt,
    earlier,
    aimAtSite,
    aimAtOther,
    nudge,
  };
}

/** A point is opened with what the client has said of it; its form is left with what a touch on
 * the body said in it. */
function opening(
  aiming: ReturnType<typeof useAiming>,
  answering: ReturnType<typeof useAnswer>,
  { points }: Schemas["State"],
) {
  return {
    openPoint: (point: string) => {
      aiming.setSelected(point);
      answering.begin(points.find((p) => p.point === point));
    },
    leave: () => {
      aiming.leave();
      answering.begin();
    },
  };
}
