// The end of a visit with a simulated client: what it is, how sure one is, and the review.
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";
import { Button, Card, Waiting } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { Naming } from "../exercise/Naming";
import { useBenchVisit } from "./useBenchVisit";
import { useFinish } from "./useFinish";

export default function BenchEnd({ visit, me }: { visit: LiveVisit; me: Schemas["Me"] }) {
  const id = visit.open.visit.id;
  const client = useBenchVisit(id);
  const { finish, error } = useFinish(id, me, client?.doing);
  if (!client) return <Waiting>Looking at the client…</Waiting>;
  return (
    <Stack $gap={3}>
      {client.exercise === "visit" && <Naming core={visit.core} doing={client.doing} title="" />}
      <Card data-bench-end>
        <h2>To the review</h2>
        <Said>
          The exercise ends here. You see what was true, each mark with its rule, and how it scored. A real
          visit would go on with the note to sign and the next appointment.
        </Said>
        {error && (
          <Said $tone="stop" role="alert">
            {error.message}
          </Said>
        )}
        <Row>
          <Button $kind="main" onPress={() => void finish()}>
            Finish and review
          </Button>
        </Row>
      </Card>
    </Stack>
  );
}
