// The trial visit, offered to who is here for the first time.
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, must, type Schemas } from "../../api/client";
import { forgetTrial, trial } from "../../core/trial";
import { Button, Card } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { may } from "../../rights";

/** Where the trial visit is; each time from its beginning. */
export function useTrial() {
  const go = useNavigate();
  return () => {
    forgetTrial();
    void go(`/visits/${trial.visit}?step=screen`);
  };
}

export function TrialOffer({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const begin = useTrial();
  if (me.introduced || !may(me, "put-introduced")) return null;
  // Once begun or declined it is found under Help; without a connection it is offered again.
  const answered = () =>
    must(api.PUT("/api/me/introduced")).then(
      () => queries.invalidateQueries({ queryKey: ["me"] }),
      () => undefined,
    );
  return (
    <Card role="region" aria-label="Trial visit">
      <h2>New here?</h2>
      <p>
        Try a visit with an invented client first. It takes five minutes, you can leave at any moment, and
        nothing of it is stored or sent. You find it again under Help.
      </p>
      <Row>
        <Button
          $kind="main"
          onPress={() => {
            void answered();
            begin();
          }}
        >
          Start a trial visit
        </Button>
        <Button onPress={() => void answered()}>Not now</Button>
      </Row>
    </Card>
  );
}
