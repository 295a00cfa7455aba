// What to do next in the trial visit, above each of its steps, with the way out.
import { useNavigate } from "react-router";
import { forgetTrial, isTrial } from "../../core/trial";
import { Button, Card } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import type { StepProps } from "../visit/StepProps";
import type { Path, StepName } from "../visit/steps";

const todo: Partial<Record<StepName, string>> = {
  screen:
    "Ottilie agrees to the visit and has none of these conditions: touch Agreed, then “No to the rest” in each group. Then go on to Find.",
  find: "Her right upper trapezius hurts. Touch the top of the right shoulder on the body, choose the muscle, then give what she says: score 6, a band, the pain she knows. Chart the point, then begin the hold below.",
  press:
    "Begin the hold. You play both parts: touch Contact, then give Ottilie's score whenever the coach asks, for example 6, then 5, 4, 2. Every key on that screen may be tried.",
  recheck: "Press the same place again as firmly as before and give the score that she says now.",
};

export function TrialGuide({ visit, path }: StepProps & { path: Path }) {
  const leave = useLeave();
  if (!isTrial(visit.open.visit.id)) return null;
  const text = todo[path.step];
  return (
    <Card $gap={2} role="region" aria-label="Trial visit">
      <Row $gap={3}>
        <Fill>
          <b>Trial visit</b>
          <span className="quiet"> · an invented client, nothing is stored or sent</span>
        </Fill>
        <Button onPress={leave}>Leave</Button>
      </Row>
      {text && <p>{text}</p>}
    </Card>
  );
}

/** Ends the trial visit and forgets it. */
export function useLeave() {
  const go = useNavigate();
  return () => {
    forgetTrial();
    void go("/");
  };
}
