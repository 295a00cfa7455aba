// One's own appointments in another calendar, by a secret link.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, ErrorPanel } from "../../parts/controls";
import { Row, Said } from "../../parts/layout";

export function Calendar() {
  const queries = useQueryClient();
  const q = useQuery({ queryKey: ["calendar"], queryFn: () => must(api.GET("/api/calendar")) });
  const [names, setNames] = useState(false);
  const [made, setMade] = useState<Schemas["CalendarSettings"]>();
  const [error, setError] = useState<Error>();
  const put = async (on: boolean) => {
    setError(undefined);
    try {
      setMade(await must(api.PUT("/api/calendar", { body: { on, names } })));
      await queries.invalidateQueries({ queryKey: ["calendar"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Card $gap={3} data-calendar>
      <h2>Your appointments in another calendar</h2>
      <p className="quiet">
        A link that a calendar program asks now and then. Whoever has it sees your appointments; it can be
        revoked at any time.
      </p>
      <Choice
        label="Show"
        value={names ? "names" : "none"}
        options={["none", "names"] as const}
        describe={(v) => (v === "names" ? "client's name" : "busy only")}
        onChoose={(v) => setNames(v === "names")}
      />
      {made?.path && (
        <Said data-link>
          Copy it now, it is shown once: <b>{new URL(made.path, location.href).href}</b>
        </Said>
      )}
      <Row $gap={3} $wrap>
        <Button $kind="main" onPress={() => void put(true)}>
          {q.data?.on ? "Create a new link" : "Create link"}
        </Button>
        {q.data?.on && <Button onPress={() => void put(false)}>Revoke link</Button>}
      </Row>
      {error && <ErrorPanel error={error} />}
    </Card>
  );
}
