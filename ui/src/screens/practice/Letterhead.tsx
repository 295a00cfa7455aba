// How the practice is named and reached: on aftercare sheets, prints and letters.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { letterheadKey, useLetterhead } from "../../api/queries";
import { Button, Card, ErrorPanel, Text } from "../../parts/controls";
import { Columns, Row, Said } from "../../parts/layout";

type Head = Schemas["Letterhead"];

export function Letterhead() {
  const q = useLetterhead();
  if (q.error) return <ErrorPanel error={q.error} />;
  return q.data ? <Form head={q.data} /> : null;
}

function Form({ head }: { head: Head }) {
  const queries = useQueryClient();
  const [h, setH] = useState(head);
  const [error, setError] = useState<Error>();
  const [saved, setSaved] = useState(false);
  const set = (change: Partial<Head>) => {
    setSaved(false);
    setH({ ...h, ...change });
  };
  const keep = async () => {
    setError(undefined);
    try {
      const kept = await must(api.PUT("/api/practice/letterhead", { body: h }));
      queries.setQueryData(letterheadKey, kept);
      await queries.invalidateQueries({ queryKey: ["me"] });
      setSaved(true);
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Card $gap={3} data-letterhead>
      <h2>Name and address</h2>
      <p className="quiet">Stands on aftercare sheets, prints and letters, so that a client can reach you.</p>
      <Columns $cols="1fr 1fr">
        <Text label="Name" value={h.name} maxLength={120} onChange={(name) => set({ name })} />
        <Text
          label="Printed large, if not the name"
          value={h.logo_text ?? ""}
          maxLength={60}
          onChange={(logo_text) => set({ logo_text })}
        />
      </Columns>
      <Text
        label="Address"
        long
        value={h.address ?? ""}
        maxLength={400}
        onChange={(address) => set({ address })}
      />
      <Columns $cols="1fr 1fr">
        <Text
          label="Telephone"
          value={h.telephone ?? ""}
          maxLength={40}
          onChange={(telephone) => set({ telephone })}
        />
        <Text
          label="Opening hours"
          value={h.opening_hours ?? ""}
          maxLength={200}
          onChange={(opening_hours) => set({ opening_hours })}
        />
      </Columns>
      {error && <ErrorPanel error={error} />}
      <Row>
        <Button $kind="main" onPress={() => void keep()}>
          Save name and address
        </Button>
        {saved && (
          <Said role="status" $tone="good">
            Saved
          </Said>
        )}
      </Row>
    </Card>
  );
}
