// One own copy: its name and its numbers, each within its bracket.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button, Num, Text } from "../../parts/controls";
import { Fill, Row, Ruled, Stack } from "../../parts/layout";
import { sentence } from "../../parts/words";
import { numberName, numberWords, unitOf } from "./schoolWords";

interface Props {
  school: Schemas["School"];
  own: Schemas["OwnSchool"];
  onKeep: (o: Schemas["OwnSchool"]) => void;
  /** Only of one that is kept already. */
  onDrop?: () => void;
  onLeave: () => void;
}

export function SchoolForm({ school, own, onKeep, onDrop, onLeave }: Props) {
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
    <Stack as="form" onSubmit={keep} $gap={3} data-tuning={school.protocol}>
      <p>
        <b>{school.name}.</b> {school.what} Target {school.limits.target}, ceilings{" "}
        {school.limits.soft_ceiling} / {school.limits.hard_ceiling}.
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
      {school.tunable.map((b) => (
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
          Keep the copy
        </Button>
        <Button onPress={onLeave}>Leave it</Button>
        <Fill />
        {onDrop && (
          <Button $kind="stop" onPress={sure ? onDrop : () => setSure(true)}>
            {sure ? "Yes, forget it" : "Forget this copy"}
          </Button>
        )}
      </Row>
    </Stack>
  );
}
