// One own copy: its name and its numbers, each within its bounds.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button, Num, Text } from "../../parts/controls";
import { Fill, Row, Ruled, Stack } from "../../parts/layout";
import { sentence } from "../../parts/words";
import { numberName, numberWords, unitOf } from "./protocolWords";

interface Props {
  protocol: Schemas["ProtocolNumbers"];
  own: Schemas["OwnProtocol"];
  onKeep: (o: Schemas["OwnProtocol"]) => void;
  /** Only of one that is kept already. */
  onDrop?: () => void;
  onLeave: () => void;
}

export function ProtocolForm({ protocol, own, onKeep, onDrop, onLeave }: Props) {
  const [name, setName] = useState(own.name);
  const [numbers, setNumbers] = useState(own.numbers);
  const [error, setError] = useState("");
  const [sure, setSure] = useState(false);
  const keep = (e: React.FormEvent) => {
    e.preventDefault();
    if (name.trim()) onKeep({ ...own, name: name.trim(), numbers });
    else setError("A name that the team will know.");
  };
  return (
    <Stack as="form" onSubmit={keep} $gap={3} data-tuning={protocol.protocol}>
      <p>
        <b>{protocol.name}.</b> {protocol.what} Target {protocol.limits.target}, ceilings{" "}
        {protocol.limits.soft_ceiling} / {protocol.limits.hard_ceiling}.
      </p>
      <Text
        label="Name of the copy"
        value={name}
        maxLength={60}
        onChange={(v) => {
          setName(v);
          setError("");
        }}
        error={error}
      />
      {protocol.tunable.map((b) => (
        <Ruled key={b.number} $cols="minmax(0,1fr) 130px" $align="center">
          <span>
            {sentence(numberName(b.number))}{" "}
            <span className="quiet">
              {numberWords(b.number, b.min)} to {numberWords(b.number, b.max)}. {b.why}
            </span>
          </span>
          <Num
            hideLabel
            label={numberName(b.number)}
            unit={unitOf(b.number)}
            value={numbers[b.number]}
            min={b.min}
            max={b.max}
            onCommit={(v) => v !== undefined && setNumbers({ ...numbers, [b.number]: v })}
          />
        </Ruled>
      ))}
      <Row>
        <Button type="submit" $kind="main">
          Save
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
        <Fill />
        {onDrop && (
          <Button $kind="stop" onPress={sure ? onDrop : () => setSure(true)}>
            {sure ? "Yes, delete it" : "Delete this copy"}
          </Button>
        )}
      </Row>
    </Stack>
  );
}
