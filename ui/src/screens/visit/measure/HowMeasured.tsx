// How the movement that is read next is measured, where the body stands otherwise.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { useCourse } from "../../../api/queries";
import { MeasuredPose } from "../../../body/MeasuredPose";
import { useAsk } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";
import { deg, listed, movementName, sentence } from "../../../parts/words";
import type { Measuring } from "./reading";

const Room = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: var(--s2);
  min-height: 0;
  padding: var(--s1) var(--s2) var(--s2);
`;

/** Last time's reading of a movement on a side. */
const lastOf = (
  history: Schemas["RangeHistory"][] | undefined,
  { movement, side }: Measuring,
  visit: string,
) =>
  history
    ?.find((r) => r.movement === movement && r.side === side)
    ?.visits.filter((v) => v.visit !== visit)
    .at(-1)?.before;

export function HowMeasured({ visit, measuring }: { visit: LiveVisit; measuring: Measuring }) {
  const { core, state, open } = visit;
  const { movement, side } = measuring;
  const course = useCourse(open.client.id);
  const usual = useAsk(core, "range", { movement, age: open.client.age });
  const drawing = useAsk(core, "pose", { movement, side });
  const read = state.ranges.find((r) => r.movement === movement && r.side === side);
  const now = measuring.live ?? read?.before;
  const last = lastOf(course.data?.history.ranges, measuring, open.visit.id);
  const name = listed(movementName(movement), side !== "midline" && side);
  if (!usual) return <Room data-how={movement} />;
  return (
    <Room data-how={movement}>
      <h2>{name}</h2>
      {drawing ? (
        <MeasuredPose
          drawing={drawing}
          angles={{ now, last, usual: usual.reference, short: usual.flag_below }}
          tool={measuring.tool}
          label={`${name}: ${drawing.start}, the angle from 0 to ${deg(usual.reference)}.`}
        />
      ) : (
        <p className="quiet">It is a distance, not an angle: read it with a ruler between the teeth.</p>
      )}
      <p>
        {drawing && (
          <>
            {drawing.start}. Hold still: {drawing.keep}.{" "}
            {drawing.axial && "It turns about its own length: look along it. "}
          </>
        )}
        <span className="quiet">
          {sentence(
            listed(
              `usual is ${deg(usual.reference)}`,
              last !== undefined && `last time ${deg(last)}`,
              now !== undefined && `now ${deg(now)}`,
            ),
          )}
          .
        </span>
      </p>
    </Room>
  );
}
