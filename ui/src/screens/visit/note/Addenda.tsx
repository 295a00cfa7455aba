// What is added after the end; what was written before stands.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Text } from "../../../parts/controls";
import { Row, Stack } from "../../../parts/layout";
import { day } from "../../../parts/words";
import type { StepProps } from "../StepProps";

const Line = styled.p`
  white-space: pre-wrap;
`;

export function Addenda({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const { state, write, open } = visit;
  const [text, setText] = useState("");
  const name = (id: string) => open.team.find((m) => m.id === id)?.name ?? "a former colleague";
  return (
    <Stack data-addenda>
      {state.addenda.map((a) => (
        <Line key={a.at_ms + a.text}>
          <span className="quiet">
            Added by {name(a.author)}, {day(new Date(a.at_ms).toISOString(), me.time_zone)}:
          </span>{" "}
          {a.text}
        </Line>
      ))}
      <Text label="Addendum" long value={text} onChange={setText} />
      <Row>
        <Button
          isDisabled={!text.trim()}
          onPress={() => {
            write("addendum-written", { text: text.trim() });
            setText("");
          }}
        >
          Add it
        </Button>
      </Row>
    </Stack>
  );
}
