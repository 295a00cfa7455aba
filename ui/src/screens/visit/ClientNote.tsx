// Something the client says, written down at any step as it is said.
import { useState } from "react";
import { styled } from "styled-components";
import { Button, Card, Disclosed, Text } from "../../parts/controls";
import { Row, Stack } from "../../parts/layout";
import type { StepProps } from "./StepProps";
import type { StepName } from "./steps";

/** One row while it is closed. */
const Slim = styled(Card)`
  padding-block: var(--s1);
`;

export function ClientNote({ visit, step }: StepProps & { step: StepName }) {
  const { state, write } = visit;
  const [text, setText] = useState("");
  if (state.closed_ms) return null;
  const said = state.client_notes ?? [];
  const add = (e: React.FormEvent) => {
    e.preventDefault();
    write("client-note-added", { text: text.trim(), step });
    setText("");
  };
  return (
    <Slim data-client-note>
      <Disclosed
        summary={said.length ? `What the client said (${said.length})` : "The client says something"}
      >
        {said.map((n) => (
          <p key={n.at_ms + n.text}>“{n.text}”</p>
        ))}
        <Stack as="form" $gap={3} onSubmit={add}>
          <Text label="In the client's words" value={text} onChange={setText} />
          <Row>
            <Button type="submit" isDisabled={!text.trim()}>
              Add it
            </Button>
          </Row>
        </Stack>
      </Disclosed>
    </Slim>
  );
}
