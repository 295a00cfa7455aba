// What was not right before, and each point that was pressed, looked at again. Which things
// these are is the core's list; each stands beside its value from before.
import type { Schemas } from "../../../api/client";
import { Card } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { GaugesCard } from "../gauges/GaugesCard";
import { MeasureStep } from "../MeasureStep";
import { NextUp } from "../next/NextUp";
import type { StepProps } from "../StepProps";
import { PointsAgain } from "./PointsAgain";
import { PostureAgain } from "./PostureAgain";
import { SaidAgain } from "./SaidAgain";
import { SignsAgain } from "./SignsAgain";

export function RecheckStep({ visit }: StepProps) {
  const list = visit.state.recheck;
  const of = (kind: Schemas["ToRecheck"]["kind"]) => list.filter((x) => x.kind === kind);
  const ranges = of("range").flatMap((x) => (x.movement ? [x.movement] : []));
  const gauges = of("gauge").flatMap((x) => (x.gauge ? [x.gauge] : []));
  if (list.length === 0)
    return (
      <NextUp
        visit={visit}
        title="Nothing to look at again"
        why="What is not right before treatment, and each point that is pressed, is looked at again here."
      />
    );
  const left = list.filter((x) => !x.done).length;
  return (
    <>
      <Card data-to-recheck={left}>
        <h2>Recheck</h2>
        <Said role="status" $tone={left ? undefined : "good"}>
          {left
            ? `${left} of ${list.length} left: what was not right before, and what was pressed.`
            : "All of it has been looked at again."}
        </Said>
      </Card>
      <PointsAgain visit={visit} list={of("point")} thresholds={of("threshold")} />
      {ranges.length > 0 && <MeasureStep visit={visit} moment="after" only={ranges} />}
      {gauges.length > 0 && <GaugesCard visit={visit} moment="after" only={gauges} />}
      <PostureAgain visit={visit} list={of("posture")} />
      <SignsAgain visit={visit} list={of("sign")} />
      <SaidAgain visit={visit} activities={of("activity")} walk={of("walk").length > 0} />
    </>
  );
}
