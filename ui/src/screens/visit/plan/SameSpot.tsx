// Which spot of earlier visits a point is: joined and split by hand.
import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import { one } from "../../../parts/words";
import type { StepProps } from "../StepProps";

interface Props extends StepProps {
  point: Schemas["Point"];
  work: Schemas["PointWork"];
}

export function SameSpot({ visit, point, work }: Props) {
  const before = visit.open.earlier.find((p) => p.identity === point.identity);
  const join = (identity?: string) =>
    visit.write("point-identified", { point: point.point, ...(identity ? { identity } : {}) });
  if (before)
    return (
      <Row $wrap>
        <span>
          The same spot as before: {one(before.nprs)} of 10, then {one(before.after_nprs)}.
        </span>
        <Button onPress={() => join()}>Different point</Button>
      </Row>
    );
  const others = visit.open.earlier.filter(
    (p) => p.muscle === point.muscle && p.side === point.side && !work.perhaps.includes(p),
  );
  return (
    <>
      {work.perhaps.map((p) => (
        <Row key={p.identity} $wrap data-perhaps>
          <span>Just beyond an earlier spot ({one(p.nprs)} of 10).</span>
          <Button onPress={() => join(p.identity)}>It is the same</Button>
        </Row>
      ))}
      {work.perhaps.length === 0 &&
        others.slice(0, 3).map((p) => (
          <Row key={p.identity} $wrap>
            <span className="quiet">
              An earlier spot of this muscle ({one(p.nprs)} of 10) lies farther off.
            </span>
            <Button onPress={() => join(p.identity)}>Join them</Button>
          </Row>
        ))}
    </>
  );
}
