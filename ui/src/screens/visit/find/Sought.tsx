// A suspect that is looked for: the usual places of its points.
import { Link } from "react-router";
import { Button, Card } from "../../../parts/controls";
import type { LiveVisit } from "../../../core/useVisit";
import type { Body } from "../body/useBody";
import type { MuscleSide } from "../body/useAiming";
import { List } from "./List";

interface Props {
  visit: LiveVisit;
  body: Body;
  suspect: MuscleSide;
  finger?: number;
}

export function Sought({ visit, body, suspect, finger }: Props) {
  const { muscle, side } = suspect;
  const sought = visit.core.palpate(muscle, side, body.height, undefined, finger);
  return (
    <Card data-sought={muscle}>
      <h2>
        {sought.name}, {side}
      </h2>
      <p className="quiet">
        Usual places of its points; touch one, or the body where the band is.{" "}
        <Link to={`/guide/${muscle}/${side}?height=${body.height}`}>Step by step, at the table</Link>
      </p>
      <List>
        {sought.sites.map((s) => (
          <li key={s.site}>
            <Button onPress={() => body.aimAtSite(s, suspect)}>
              <span>{s.name}</span>
            </Button>
          </li>
        ))}
      </List>
    </Card>
  );
}
