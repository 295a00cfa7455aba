// The same measures again: the number at each point, the ranges taken before.
import { Card, Choice } from "../../parts/controls";
import { one, plain, sentence } from "../../parts/words";
import { MeasureStep } from "./MeasureStep";
import { GaugesCard } from "./gauges/GaugesCard";
import { NextUp } from "./next/NextUp";
import type { StepProps } from "./StepProps";

const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

export function RecheckStep({ visit }: StepProps) {
  const { state, write } = visit;
  const measured = state.ranges.filter((r) => r.before !== undefined).map((r) => r.movement);
  return (
    <>
      {state.points.length > 0 && <h2>The number at each point, same pressure</h2>}
      {state.points.map((p) => (
        <Card key={p.point} data-recheck={p.muscle}>
          <Choice
            scale
            label={`${sentence(plain(p.muscle))}, ${p.side}: was ${one(p.nprs)}`}
            value={p.after_nprs}
            options={numbers}
            onChoose={(nprs) => write("point-rechecked", { point: p.point, nprs })}
          />
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
