// The practice's price list, of which receipts are made; and its receipts for the accountant.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { Button, Card, Choice, ErrorPanel, Text } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Columns, Row, Ruled, Said } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { hundredths, money } from "../receipts/money";

export function PriceList() {
  const q = useQuery({ queryKey: ["prices"], queryFn: () => must(api.GET("/api/practice/prices")) });
  return q.data ? <Editing key={q.data.revision} list={q.data} /> : null;
}

type Service = Schemas["Service"];

/** A service while it is typed. */
interface Typed {
  name: string;
  minutes: string;
  price: string;
  tax: string;
}
const nothing: Typed = { name: "", minutes: "", price: "", tax: "" };

function serviceOf({ name, minutes, price, tax }: Typed): Service | undefined {
  const price_cents = hundredths(price);
  const tax_bp = hundredths(tax || "0");
  const long = Number(minutes || 0);
  const fine = name.trim() && price_cents !== undefined && tax_bp !== undefined && tax_bp <= 10_000;
  if (!fine || !Number.isInteger(long) || long < 0 || long > 480) return undefined;
  return { id: uuidv7(), name: name.trim(), minutes: long, price_cents, tax_bp };
}

function Editing({ list }: { list: Schemas["PriceList"] }) {
  const queries = useQueryClient();
  const [currency, setCurrency] = useState(list.currency || "EUR");
  const [typed, setTyped] = useState(nothing);
  const { error, busy, run } = useTry();
  const keep = (over: Partial<Schemas["PriceList"]>) =>
    run(async () => {
      await must(api.PUT("/api/practice/prices", { body: { ...list, currency, ...over } }));
      await queries.invalidateQueries({ queryKey: ["prices"] });
    });
  const set = (k: keyof Typed) => (v: string) => setTyped({ ...typed, [k]: v });
  const service = serviceOf(typed);
  const year = new Date().getFullYear();
  return (
    <Card $gap={3} data-prices>
      <h2>Prices and receipts</h2>
      <Columns $cols="repeat(auto-fit, minmax(130px, 1fr))" $gap={3} $align="end">
        <Text
          label="Currency"
          value={currency}
          onChange={(c) => setCurrency(c.toUpperCase().slice(0, 3))}
          onBlur={() => currency.length === 3 && currency !== list.currency && void keep({})}
        />
        <Choice
          label="Prices are"
          value={list.tax_included ? "in" : "on"}
          options={["in", "on"] as const}
          describe={(w) => (w === "in" ? "with tax included" : "without tax")}
          onChoose={(w) => void keep({ tax_included: w === "in" })}
        />
      </Columns>
      {list.services.map((s) => (
        <Ruled key={s.id} $cols="minmax(0, 1fr) auto auto" $align="center" $gap={3}>
          <span>
            {s.name}
            <span className="quiet">{s.minutes ? `, ${s.minutes} min` : ""}</span>
          </span>
          <span className="num">
            {money(s.price_cents, list.currency)}, {money(s.tax_bp).replace(/\.?0+$/, "")} % tax
          </span>
          <Button
            isDisabled={busy}
            aria-label={`Remove ${s.name}`}
            onPress={() => void keep({ services: list.services.filter((x) => x.id !== s.id) })}
          >
            Remove
          </Button>
        </Ruled>
      ))}
      <Columns $cols="repeat(auto-fit, minmax(110px, 1fr))" $gap={3} $align="end">
        <Text label="Service" value={typed.name} onChange={set("name")} />
        <Text label="Minutes" value={typed.minutes} onChange={set("minutes")} />
        <Text label="Price" value={typed.price} onChange={set("price")} />
        <Text label="Tax, %" value={typed.tax} onChange={set("tax")} />
        <Button
          isDisabled={busy || !service}
          onPress={() => service && void keep({ services: [...list.services, service] })}
        >
          Add it
        </Button>
      </Columns>
      {error && <ErrorPanel error={error} />}
      <Row $wrap $gap={3}>
        <Said className="quiet">Receipts for the accountant:</Said>
        {[year, year - 1].map((y) => (
          <FileLink key={y} href={`/api/receipts/csv?from=${y}-01-01&to=${y}-12-31`}>
            {y} (CSV)
          </FileLink>
        ))}
      </Row>
    </Card>
  );
}
