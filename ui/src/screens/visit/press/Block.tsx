import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Button, Text } from "../../../parts/controls";
import { Notice, Row, Stack } from "../../../parts/layout";
import type { StepProps } from "../StepProps";

interface Props extends StepProps {
  point: Schemas["Point"];
  licensed: boolean;
}

const leastLetters = 10;

/** Why nothing is pressed here, and a licensed person's way past it. */
export function Block({ visit, point, licensed }: Props) {
  const [reason, setReason] = useState<string>();
  const [error, setError] = useState("");
  return (
    <Notice $tone="stop" role="alert">
      <b>{point.blocked}</b>
      {licensed && point.overridable && reason === undefined && (
        <Row>
          <Button onPress={() => setReason("")}>Press all the same, with a reason</Button>
        </Row>
      )}
      {reason !== undefined && (
        <Stack
          as="form"
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim().length < leastLetters)
              setError("The clinical reason, in a sentence. It is recorded with your name.");
            else
              visit.write("block-overridden", { point: point.point, questions: point.overridable, reason });
          }}
        >
          <Text
            label="Clinical reason"
            value={reason}
            onChange={(v) => {
              setReason(v);
              setError("");
            }}
            error={error}
          />
          <Row>
            <Button type="submit" $kind="stop">
              Record the reason
            </Button>
            <Button onPress={() => setReason(undefined)}>Leave it blocked</Button>
          </Row>
        </Stack>
      )}
    </Notice>
  );
}
