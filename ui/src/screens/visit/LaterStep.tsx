// What is done at the steps after the first two: fetched when the visit is there, and before a therapist can
// get to them.
import type { Schemas } from "../../api/client";
import { ofBench } from "../../core/benchVisit";
import { isTrial } from "../../core/trial";
import type { LiveVisit } from "../../core/useVisit";
import { lazy } from "react";
import { TrialEnd } from "../trial/End";
import type { Body } from "./body/useBody";
import { CloseStep } from "./CloseStep";
import { FindStep } from "./find/FindStep";
import { MeasureParts } from "./MeasureParts";
import { PlanStep } from "./plan/PlanStep";
import { PressStep } from "./press/PressStep";
import { RecheckStep } from "./recheck/RecheckStep";
import { ScreenStep } from "./screening/ScreenStep";
import { SuspectStep } from "./suspects/SuspectStep";
import type { Path } from "./steps";

const BenchEnd = lazy(() => import("../bench/visit/BenchEnd"));

export interface StepPanel {
  visit: LiveVisit;
  me: Schemas["Me"];
  path: Path;
  body: Body;
  ranking: Schemas["Ranking"];
  work: Schemas["Working"];
}

export default function LaterStep({ visit, me, path, body, ranking, work }: StepPanel) {
  switch (path.step) {
    case "screen":
      return (
        <ScreenStep visit={visit} placing={body.placing.question} setPlacing={body.placing.setQuestion} />
      );
    case "measure":
      return (
        <MeasureParts
          visit={visit}
          part={path.part}
          onPart={(p) => path.goTo("measure", p)}
          placing={body.placing}
        />
      );
    case "suspect":
      return (
        <SuspectStep
          visit={visit}
          ranking={ranking}
          chosen={body.chosen}
          setChosen={body.setChosen}
          height={body.height}
        />
      );
    case "find":
      return <FindStep visit={visit} body={body} work={work} finger={me.finger_cm} />;
    case "plan":
      return <PlanStep visit={visit} body={body} work={work} ranking={ranking} go={path.goTo} />;
    case "press":
      return (
        <PressStep
          visit={visit}
          me={me}
          selected={body.selected}
          setSelected={body.setSelected}
          height={body.height}
          work={work.points}
          led={work.led}
        />
      );
    case "recheck":
      return <RecheckStep visit={visit} />;
    case "close":
      if (ofBench(visit.open.visit.id)) return <BenchEnd visit={visit} me={me} />;
      return isTrial(visit.open.visit.id) ? <TrialEnd visit={visit} /> : <CloseStep visit={visit} me={me} />;
  }
}
