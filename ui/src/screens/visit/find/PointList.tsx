import type { Schemas } from "../../../api/client";
import { gradeWord } from "../../../body/marks";
import { Button, Card } from "../../../parts/controls";
import { one, plain, sentence } from "../../../parts/words";
import { List } from "./List";

/** The points of this visit; one is opened to be corrected. */
export function PointList({
  points,
  onOpen,
}: {
  points: Schemas["Point"][];
  onOpen: (point: string) => void;
}) {
  return (
    <Card>
      <h2>Points of this visit</h2>
      <List>
        {points.map((p) => (
          <li key={p.point}>
            <Button onPress={() => onOpen(p.point)}>
              <span>
                {sentence(plain(p.muscle))}, {p.side}
              </span>
              <span className="off">
                {gradeWord(p.grade)} · {one(p.nprs)} of 10
              </span>
            </Button>
          </li>
        ))}
      </List>
    </Card>
  );
}
