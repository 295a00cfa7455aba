// The same measures again: the number at each point, the ranges taken before.
import type { Schemas } from "../../api/client";
import { useAsk } from "../../core/useAsk";
import { Card, Choice } from "../../parts/controls";
import { Said } from "../../parts/layout";
import { one } from "../../parts/words";
import { MeasureStep } from "./MeasureStep";
import { GaugesCard } from "./gauges/GaugesCard";
import { NextUp } from "./next/NextUp";
import { usePointWords } from "./pointWords";
import type { StepProps } from "./StepProps";

/** What the number at a point has done, against what counts as a change. */
function Changed({ visit, point: { nprs, after_nprs } }: StepProps & { point: Schemas["Point"] }) {
  const both = nprs !== undefined && after_nprs !== undefined;
  const change = useAsk(
    visit.core,
    "change",
    both ? { measure: "nprs", before: nprs, after: after_nprs } : undefined,
  );
  if (!change) return null;
  const by = Math.abs(change.delta);
  const words = change.meaningful
    ? `${change.direction === "better" ? "Clearly better" : "Clearly worse"}, by ${one(by)}.`
    : by === 0
      ? "The same as before."
      : `No clear change (${one(by)}); two, or 30 %, would be.`;
  return (
    <Said className="quiet" $small data-changed={change.direction}>
      {words}
    </Said>
  );
}

const wasWords = ({ nprs }: Schemas["Point"]) =>
  nprs === undefined ? "no number before" : `was ${one(nprs)}`;

const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

export function RecheckStep({ visit }: StepProps) {
  const { state, write } = visit;
  const names = usePointWords(visit);
  const measured = state.ranges.filter((r) => r.before !== undefined).map((r) => r.movement);
  return (
    <>
      {state.points.length > 0 && <h2>The number at each point, same pressure</h2>}
      {state.points.map((p) => (
        <Card key={p.point} data-recheck={p.muscle}>
          <Choice
            scale
            label={`${names.get(p.point)}: ${wasWords(p)}`}
            value={p.after_nprs}
            options={numbers}
            onChoose={(nprs) => write("point-rechecked", { point: p.point, nprs })}
          />
          <Changed visit={visit} point={p} />
        </Card>
      ))}
      {state.points.length === 0 && (
        <NextUp
          visit={visit}
          title="No point to ask again"
          why="Once a point is charted and pressed, its number is asked again here at the same pressure."
        />
      )}
      {measured.length > 0 ? (
        <MeasureStep visit={visit} moment="after" only={measured} />
      ) : (
        <p className="quiet">No range was taken before, so there is nothing to compare.</p>
      )}
      <GaugesCard visit={visit} moment="after" />
    </>
  );
}
