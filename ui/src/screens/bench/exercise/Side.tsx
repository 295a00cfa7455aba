// What stands beside the body in an exercise: its name, what the client says, the way to its end.
import type { ReactNode } from "react";
import { styled } from "styled-components";
import { Link } from "react-router";
import { Button, Card } from "../../../parts/controls";
import { BodyAndSide, Fill, Row, Said } from "../../../parts/layout";
import { upright } from "../../../theme";
import type { Doing, ClientTold } from "./useExercise";

export const ExerciseRoom = styled(BodyAndSide)`
  .pane {
    margin: 0;
    min-height: 0;
    height: 100%;
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: var(--r2);
    padding: var(--s2);
    overflow: hidden;
  }
  ${upright} {
    grid-template-rows: minmax(0, 1.1fr) minmax(0, 1fr);
  }
`;

export function Heading({ title, doing, can = true }: { title: string; doing: Doing; can?: boolean }) {
  return (
    <Card>
      <Row $gap={3}>
        <Fill>
          <h1>{title}</h1>
        </Fill>
        <Link className="stands" to="/bench">
          Leave
        </Link>
      </Row>
      <Row $wrap>
        <Button $kind={can ? "main" : "plain"} onPress={() => void doing.act({ action: "finish" })}>
          Finish
        </Button>
        {doing.error && (
          <Said $tone="stop" role="alert">
            {doing.error.message}
          </Said>
        )}
      </Row>
    </Card>
  );
}

/** The last words of the client, large enough for arm's length. */
export function ClientSays({ told, children }: { told: ClientTold[]; children?: ReactNode }) {
  const last = told.findLast((t) => t.says);
  return (
    <Card aria-live="polite" data-says={last?.says ?? ""}>
      <h2>The client</h2>
      <Said $lead>{last?.says ? `“${last.says}”` : "Says nothing."}</Said>
      {children}
    </Card>
  );
}
