// What went wrong at a visit: what happened, what was done, who was told.
import { useState } from "react";
import { Button, Card, Disclosed, Text } from "../../../parts/controls";
import { FileLink } from "../../../parts/FileLink";
import { Row, Stack } from "../../../parts/layout";
import type { StepProps } from "../StepProps";

const nothing = { happened: "", done: "", told: "" };

export function Incident({ visit }: StepProps) {
  const { state, write, open } = visit;
  const [said, setSaid] = useState(nothing);
  const [error, setError] = useState("");
  const put = (k: keyof typeof nothing) => (v: string) => {
    setSaid({ ...said, [k]: v });
    setError("");
  };
  const save = async (e: React.FormEvent) => {
    e.preventDefault();
    const refused = await visit.preview("incident-recorded", said);
    if (refused) return setError(refused);
    write("incident-recorded", said);
    setSaid(nothing);
  };
  return (
    <Card $gap={3} data-incident>
      {state.incidents?.map((x) => (
        <dl key={x.at_ms}>
          <dt>What happened</dt>
          <dd>{x.happened}</dd>
          <dt>What was done</dt>
          <dd>{x.done}</dd>
          <dt>Who was told</dt>
          <dd>{x.told}</dd>
        </dl>
      ))}
      {!!state.incidents?.length && (
        <FileLink href={`/api/visits/${open.visit.id}/print/incident`}>Incident record (PDF)</FileLink>
      )}
      <Disclosed summary="Record an incident">
        <Stack as="form" $gap={3} onSubmit={save}>
          <Text label="What happened" long value={said.happened} onChange={put("happened")} />
          <Text label="What was done" long value={said.done} onChange={put("done")} />
          <Text label="Who was told, and when" value={said.told} error={error} onChange={put("told")} />
          <Row>
            <Button type="submit">Keep it in the record</Button>
          </Row>
        </Stack>
      </Disclosed>
    </Card>
  );
}
