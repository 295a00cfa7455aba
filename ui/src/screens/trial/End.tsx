// The end of the trial visit: what a real one would go on with.
import { Link } from "react-router";
import { Button, Card } from "../../parts/controls";
import { Bullets, Row } from "../../parts/layout";
import { clock, listed, plain } from "../../parts/words";
import { usePointWords } from "../visit/pointWords";
import type { StepProps } from "../visit/StepProps";
import { useLeave } from "./Guide";

export function TrialEnd({ visit }: StepProps) {
  const leave = useLeave();
  const names = usePointWords(visit);
  const { holds } = visit.state;
  return (
    <Card>
      <h2>That was a visit</h2>
      <p>
        {holds.length > 0
          ? "This is what you did. A real visit would keep it, and the client's page would show it beside the next one."
          : "No hold was begun. You can go back to any step above."}
      </p>
      <Bullets>
        {holds.map((h) => (
          <li key={h.id}>
            {listed(
              names.get(h.point ?? ""),
              plain(h.start.protocol),
              h.summary.pressure_s > 0 && `${clock(h.summary.pressure_s)} pressed`,
              h.result,
            )}
          </li>
        ))}
      </Bullets>
      <p>
        In a real visit Close has the note to sign, the aftercare sheet, the next appointment and, where it is
        needed, a letter to a doctor. Measure and Suspect come before Find. Each step has a question mark with
        half a page of help; <Link to="/help">all of the help</Link> can be searched and printed.
      </p>
      <Row>
        <Button $kind="main" onPress={leave}>
          Leave the trial visit
        </Button>
      </Row>
    </Card>
  );
}
