import { useState } from "react";
import type { Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { Button, Num, Text } from "../../parts/controls";
import { Columns, Row, Stack } from "../../parts/layout";

interface Props {
  onKeep: (s: Omit<Schemas["OwnSite"], "muscle">) => void;
  onLeave: () => void;
}

/** A site of the practice's own, by its place on the fibres. */
export function NewSite({ onKeep, onLeave }: Props) {
  const [name, setName] = useState("");
  const [along, setAlong] = useState(50);
  const [across, setAcross] = useState(0);
  const [missing, setMissing] = useState("");
  return (
    <Stack
      as="form"
      onSubmit={(e) => {
        e.preventDefault();
        if (!name.trim()) return setMissing("The site needs a name.");
        onKeep({ id: uuidv7(), name, place: { fibre: 0, along_pct: along, across_mm: across } });
      }}
    >
      <Text
        label="Name of the site"
        value={name}
        onChange={(v) => {
          setName(v);
          setMissing("");
        }}
        error={missing}
      />
      <Columns $cols="1fr 1fr">
        <Num
          label="Along the fibre"
          unit="%"
          value={along}
          min={0}
          max={100}
          onCommit={(v) => setAlong(v ?? 50)}
        />
        <Num
          label="Across, outward"
          unit="mm"
          value={across}
          min={-150}
          max={150}
          onCommit={(v) => setAcross(v ?? 0)}
        />
      </Columns>
      <Row>
        <Button type="submit" $kind="main">
          Keep the site
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
      </Row>
    </Stack>
  );
}
