// A visit's receipts: services of the practice's own list, issued by the server, taken back by a
// counter-receipt.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { Button, Card, ErrorPanel } from "../../parts/controls";
import { Choices } from "../../parts/Choice";
import { FileLink } from "../../parts/FileLink";
import { Fill, Row, Ruled, Said } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { money } from "./money";

export function Receipts({ visit }: { visit: string }) {
  const queries = useQueryClient();
  const path = { id: visit };
  const prices = useQuery({ queryKey: ["prices"], queryFn: () => must(api.GET("/api/practice/prices")) });
  const issued = useQuery({
    queryKey: ["receipts", visit],
    queryFn: () => must(api.GET("/api/visits/{id}/receipts", { params: { path } })),
  });
  const { error, busy, run } = useTry();
  const changed = () => queries.invalidateQueries({ queryKey: ["receipts", visit] });
  const cancel = (number: number) =>
    run(async () => {
      await must(api.POST("/api/receipts/{number}/cancel", { params: { path: { number } } }));
      await changed();
    });
  if (!prices.data || !issued.data) return null;
  return (
    <Card $gap={3} data-receipts>
      <h2>Receipt</h2>
      {issued.data.items.map((r) => (
        <Issued key={r.number} r={r} busy={busy} onCancel={() => void cancel(r.number)} />
      ))}
      {prices.data.services.length > 0 ? (
        <Write visit={visit} prices={prices.data} onIssued={changed} />
      ) : (
        <Said className="quiet">The practice has no price list yet: an owner writes it under Practice.</Said>
      )}
      {error && <ErrorPanel error={error} />}
    </Card>
  );
}

interface IssuedProps {
  r: Schemas["ReceiptOut"];
  busy: boolean;
  onCancel: () => void;
}

/** One that was issued; taking it back asks first, since its counter-receipt stays. */
function Issued({ r, busy, onCancel }: IssuedProps) {
  const [asked, setAsked] = useState(false);
  const what = r.cancels
    ? `takes number ${r.cancels} back`
    : r.cancelled_by
      ? `taken back by number ${r.cancelled_by}`
      : r.lines.map((l) => l.service).join(", ");
  return (
    <Ruled $cols="minmax(0, 1fr) auto" $align="center">
      <Fill>
        <b>
          Number {r.number}, {money(r.total_cents, r.currency)}
        </b>
        <br />
        <span className="quiet">{what}</span>
      </Fill>
      <Row $gap={3}>
        <FileLink href={`/api/receipts/${r.number}/pdf`}>PDF</FileLink>
        {!r.cancels && !r.cancelled_by && (
          <Button
            isDisabled={busy}
            $kind={asked ? "stop" : "plain"}
            onPress={asked ? onCancel : () => setAsked(true)}
          >
            {asked ? "Take it back for good" : "Take it back"}
          </Button>
        )}
      </Row>
    </Ruled>
  );
}

interface WriteProps {
  visit: string;
  prices: Schemas["PriceList"];
  onIssued: () => Promise<void>;
}

function Write({ visit, prices, onIssued }: WriteProps) {
  const [chosen, setChosen] = useState<string[]>([]);
  // The same receipt is asked for again with the same id, until it is there.
  const [id, setId] = useState(uuidv7);
  const { error, busy, run } = useTry();
  const of = (s: string) => prices.services.find((x) => x.id === s);
  const lines = chosen.map((s) => ({ service: s, minutes: of(s)?.minutes ?? 0 }));
  const issue = () =>
    run(async () => {
      await must(
        api.POST("/api/visits/{id}/receipts", { params: { path: { id: visit } }, body: { id, lines } }),
      );
      setId(uuidv7());
      setChosen([]);
      await onIssued();
    });
  return (
    <>
      <Choices
        label="What was done"
        values={chosen}
        options={prices.services.map((s) => s.id)}
        describe={(s) => `${of(s)?.name}, ${money(of(s)?.price_cents ?? 0)}`}
        onChange={setChosen}
      />
      <Row>
        <Button $kind="main" isDisabled={busy || !chosen.length} onPress={() => void issue()}>
          Issue a receipt
        </Button>
      </Row>
      {error && <ErrorPanel error={error} />}
    </>
  );
}
