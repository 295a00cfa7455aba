// What is laid on the body at each step: the muscle that is looked for, referral,
// and what each view comes to.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import { scaleOf, type View } from "../../../body/views";
import { finely } from "../../../body/zoom";
import type { LiveVisit } from "../../../core/useVisit";
import type { Path } from "../steps";
import type { useAiming } from "./useAiming";
import { answerOf, isSaid, type useAnswer, usualToo } from "./useAnswer";
import type { usePlacing } from "./usePlacing";
import { useAnswerFit, useMuscleFit, useMuscleShape, usePointsFit, useZones } from "./useBodyLayers";

/** Steps that are about all points of the visit, and about one that is selected. */
const ofAll: ReadonlySet<string> = new Set(["plan", "press", "recheck", "close"]);

interface On {
  views: View[];
  height: number;
  aiming: ReturnType<typeof useAiming>;
  placing: ReturnType<typeof usePlacing>;
  answering: ReturnType<typeof useAnswer>;
  likeliest: Schemas["Suspect"] | undefined;
  work: Schemas["PointWork"][];
}

export function useDrawn({ core, state }: LiveVisit, { step }: Path, on: On) {
  const { views, height, aiming, placing, answering, likeliest, work } = on;
  const { aim, chosen } = aiming;
  const shown = state.points.find((p) => p.point === aiming.selected);
  // Where a point depends on another, the plan shows through which referral.
  const rules = step === "plan" && shown && work.find((w) => w.point === shown.point)?.of;
  const ruling = state.points.find((p) => p.point === rules);
  const subject = aim?.candidate ?? ruling ?? shown;
  const charting = aim || (step === "find" && shown);
  const kept = ruling ? usualToo(answerOf(ruling)) : shown && answerOf(shown);
  const said = charting ? answering.answer : kept;
  const zones = useZones(core, views, height, subject, said);

  // The chosen or likeliest suspect, and the chosen one again where it is to be
  // found, until another muscle is touched.
  const likely = likeliest && likeliest.confidence > 0.1 ? likeliest : undefined;
  const sought = step === "find" ? (subject ?? chosen) : undefined;
  const suspecting = step === "suspect";
  const all = ofAll.has(step);
  // Beneath a point that is charted, planned or pressed lies its muscle.
  const beneath = all ? shown : sought;
  const suspected = useMuscleShape(core, views, suspecting ? (chosen ?? likely) : beneath, suspecting);

  // While somebody says where it is felt, the whole body is there to be touched.
  const whole = step === "measure" || answering.saying;
  const looked = all ? shown : (shown ?? chosen);
  const near = whole ? undefined : aim ? aim.candidate : looked;
  // A place that is charted is touched again, or nudged: it comes as near as a finger needs,
  // until it is said where else it is felt.
  const aimedAt = !whole && aim?.candidate && answering.answer.regions.length === 0 ? aim : undefined;
  const felt = charting ? answering.answer.regions : [];
  const muscleFits = useMuscleFit(core, views, near, step === "suspect", felt);
  const exactly = useMemo(
    () => (aimedAt ? new Map([[aimedAt.view, finely(aimedAt, scaleOf(aimedAt.view))]]) : undefined),
    [aimedAt],
  );
  const askedFits = useAnswerFit(core, views, placing.asked);
  const pointsFits = usePointsFit(views, state.points);
  return {
    subject,
    said: !!said && isSaid(said),
    zones,
    suspected,
    fits: exactly ?? (step === "screen" ? askedFits : all && !near ? pointsFits : muscleFits),
  };
}
