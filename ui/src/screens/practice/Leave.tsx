// Someone leaves: who takes over.
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { Button, Pick, ErrorPanel } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { useTry } from "../../parts/useTry";

interface Props {
  p: Schemas["Colleague"];
  people: Schemas["Colleague"][];
  onLeft: () => void;
}

export function Leave({ p, people, onLeft }: Props) {
  const others = people.filter((x) => x.licensed && x.id !== p.id && x.email);
  const [to, setTo] = useState(others[0]?.id);
  const { error, busy, run } = useTry();
  const leave = async () => {
    const params = { path: { id: p.id } };
    if (await run(async () => must(api.POST("/api/people/{id}/leave", { params, body: { to: to ?? "" } }))))
      onLeft();
  };
  return (
    <>
      <p className="quiet">
        {p.name} cannot sign in any more and is signed out everywhere. What {p.name} wrote stays. Appointments
        to come, and whom {p.name} supervises, go over to:
      </p>
      <Row $gap={3} $align="end" $wrap>
        <Pick
          label="Takes over"
          value={to}
          options={others.map((x) => x.id)}
          describe={(id) => others.find((x) => x.id === id)?.name ?? ""}
          none="nobody"
          onPick={setTo}
        />
        <Button $kind="stop" isDisabled={busy || !to} onPress={leave}>
          {p.name} leaves
        </Button>
      </Row>
      {error && <ErrorPanel error={error} />}
    </>
  );
}
