// A hold of an exam: the server is the client and the coach, which stays silent; what it came to is
// told when the exam is closed.
import { useEffect, useState } from "react";
import { Button, Card } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { refresh } from "../../../core/clock";
import { clock } from "../../../parts/words";
import { styled } from "styled-components";
import type { ExerciseProps } from "./props";
import { HoldingHand } from "./HoldingHand";
import { ClientSays, Heading } from "./Side";

const Room = styled.div`
  max-width: 720px;
  margin: 0 auto;
  padding: var(--s4) 22px;
  .clock {
    font: 600 64px/1 var(--serif);
    font-variant-numeric: tabular-nums;
  }
`;

export function BlindHold({ doing, title }: ExerciseProps) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => refresh(500, () => setSeconds(doing.elapsed() / 1000)), [doing]);
  return (
    <Room>
      <Stack $gap={3}>
        <Heading title={title} doing={doing} />
        <Card>
          <Row $gap={4}>
            <span className="clock">{clock(seconds)}</span>
            <Said className="quiet">
              The coach is silent. Press to what the client says, hold, let go slowly; or finish, where
              nothing is to be pressed.
            </Said>
          </Row>
          <HoldingHand doing={doing} />
          <Row $wrap>
            <Button onPress={() => void doing.act({ action: "sign" })}>That is a sign</Button>
            <Button onPress={() => void doing.act({ action: "move" })}>Move off it</Button>
            <Button $kind="stop" onPress={() => void doing.act({ action: "stop" })}>
              Let go
            </Button>
          </Row>
        </Card>
        <ClientSays told={doing.told} />
      </Stack>
    </Room>
  );
}
