// The score at each point that was pressed, and its pressure threshold where it was measured.
import type { Schemas } from "../../../api/client";
import { useAsk } from "../../../core/useAsk";
import { Card, Choice } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { one } from "../../../parts/words";
import { Threshold } from "../find/Threshold";
import { usePointWords } from "../pointWords";
import type { StepProps } from "../StepProps";

type Item = Schemas["ToRecheck"];
const scores = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

export function PointsAgain({ visit, list, thresholds }: StepProps & { list: Item[]; thresholds: Item[] }) {
  const names = usePointWords(visit);
  const points = list.flatMap((x) => visit.state.points.filter((p) => p.point === x.point));
  if (points.length === 0) return null;
  return (
    <>
      <h2>The score at each pressed point, at the same pressure</h2>
      {points.map((p) => (
        <Card key={p.point} data-recheck={p.muscle}>
          <Choice
            scale
            label={`${names.get(p.point)}: ${wasWords(p)}`}
            value={p.after_nprs}
            options={scores}
            onChoose={(nprs) => visit.write("point-rechecked", { point: p.point, nprs })}
          />
          <Changed visit={visit} point={p} />
          {thresholds.some((x) => x.point === p.point) && (
            <Threshold visit={visit} point={p} moment="after" />
          )}
        </Card>
      ))}
    </>
  );
}

const wasWords = ({ nprs }: Schemas["Point"]) =>
  nprs === undefined ? "no score before" : `was ${one(nprs)}`;

/** What the score at a point has done, against what counts as a change. */
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
