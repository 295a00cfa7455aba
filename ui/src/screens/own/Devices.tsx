// Where one is signed in, and the way to end that from afar.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Failed, ErrorPanel, Waiting } from "../../parts/controls";
import { Fill, Plain, Row } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { agentWords } from "./agent";
import { dateFormat } from "../../parts/dates";

export function Devices({ zone }: { zone: string }) {
  const queries = useQueryClient();
  const q = useQuery({ queryKey: ["devices"], queryFn: () => must(api.GET("/api/me/devices")) });
  const { error, busy, run } = useTry();
  const end = (id: string) =>
    run(async () => {
      await must(api.DELETE("/api/me/devices/{id}", { params: { path: { id } } }));
      await queries.invalidateQueries({ queryKey: ["devices"] });
    });
  return (
    <Card $gap={3} data-devices>
      <h2>Signed in</h2>
      {q.error && <Failed error={q.error} onRetry={() => q.refetch()} />}
      {q.isPending && <Waiting>Reading…</Waiting>}
      <Plain>
        {q.data?.items.map((d) => (
          <Row as="li" key={d.id} $gap={3}>
            <Fill>
              <Where d={d} zone={zone} />
            </Fill>
            {d.this ? (
              <span className="quiet">this one</span>
            ) : (
              <Button isDisabled={busy} onPress={() => end(d.id)}>
                Sign it out
              </Button>
            )}
          </Row>
        ))}
      </Plain>
      {error && <ErrorPanel error={error} />}
    </Card>
  );
}

function Where({ d, zone }: { d: Schemas["OwnDevice"]; zone: string }) {
  const at = dateFormat("en-GB", { timeZone: zone, dateStyle: "medium", timeStyle: "short" });
  return (
    <>
      {agentWords(d.agent)}
      <div className="quiet">
        {d.address}, since {at.format(new Date(d.at))}
      </div>
    </>
  );
}
