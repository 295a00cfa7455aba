import type { Schemas } from "../../../api/client";
import { gradeWord } from "../../../body/marks";
import { Button, Card } from "../../../parts/controls";
import { one, plain, sentence } from "../../../parts/words";
import { usePointWords } from "../pointWords";
import type { StepProps } from "../StepProps";
import { List } from "./List";

/** What a point comes to, in two words. */
export function judgedAs(w: Schemas["PointWork"] | undefined): string {
  if (!w) return "";
  const certain = w.certainty === "trigger-point" ? "" : `${plain(w.certainty)} `;
  const active = w.activity === "none" ? "" : `${w.activity} `;
  const role = w.role === "satellite" ? "satellite" : certain ? "" : active ? "point" : "trigger point";
  return sentence(`${certain}${active}${role}`.trim());
}

/** The points of this visit; one is opened to be corrected. */
interface Props extends StepProps {
  work: Schemas["PointWork"][];
  onOpen: (point: string) => void;
}

export function PointList({ visit, work, onOpen }: Props) {
  const { points } = visit.state;
  const names = usePointWords(visit);
  return (
    <Card data-points>
      <h2>Points of this visit</h2>
      <List>
        {points.map((p) => (
          <li key={p.point}>
            <Button onPress={() => onOpen(p.point)}>
              <span>
                {names.get(p.point)}
                <br />
                <span className="quiet small">{judgedAs(work.find((w) => w.point === p.point))}</span>
              </span>
              <span className="off">
                {[gradeWord(p.grade), p.nprs === undefined ? "" : `${one(p.nprs)} of 10`]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </Button>
          </li>
        ))}
      </List>
    </Card>
  );
}
