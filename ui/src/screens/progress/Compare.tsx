// Any two visits beside each other.
import { useQuery } from "@tanstack/react-query";
import { memo, useMemo, useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Card, Pick, ErrorPanel } from "../../parts/controls";
import { Columns } from "../../parts/layout";
import {
  areaWords,
  lengthWords,
  type UnitPreferences,
  useUnitPreferences,
} from "../../parts/unitPreferences";
import { deg, movementName, one } from "../../parts/words";
import { longDate, type Moment } from "./time";

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  th {
    text-align: left;
    font-weight: 560;
    color: var(--ink-soft);
    font-size: var(--t1);
  }
  td,
  th {
    padding: 7px 8px 7px 0;
    border-top: 1px solid var(--line-soft);
  }
  thead th {
    border-top: 0;
  }
  .n {
    text-align: right;
    width: 84px;
    padding-right: 22px;
  }
  td[data-d="better"] {
    color: var(--good);
  }
  td[data-d="worse"] {
    color: var(--stop);
  }
`;

interface Props {
  client: string;
  moments: Moment[];
}

/** Stays as it is while the slider moves: its lists have every visit. */
export const Compare = memo(function Compare({ client, moments }: Props) {
  const [earlier, setEarlier] = useState(moments[0]?.visit);
  const [later, setLater] = useState(moments.at(-1)?.visit);
  const q = useQuery({
    queryKey: ["compare", client, earlier, later],
    enabled: !!earlier && !!later,
    queryFn: () =>
      must(
        api.GET("/api/clients/{id}/compare", {
          params: { path: { id: client }, query: { earlier: earlier ?? "", later: later ?? "" } },
        }),
      ),
  });
  const dates = useMemo(() => new Map(moments.map((m) => [m.visit, longDate(m.date)])), [moments]);
  const name = (id: string) => dates.get(id) ?? "";
  const options = moments.map((m) => m.visit);
  return (
    <Card $gap={3} data-compare>
      <h2>Two dates beside each other</h2>
      <Columns $cols="repeat(auto-fit, minmax(min(210px, 100%), 1fr))" $gap={3}>
        <Pick
          label="Then"
          value={earlier}
          options={options}
          describe={name}
          none="Choose"
          onPick={setEarlier}
        />
        <Pick label="Later" value={later} options={options} describe={name} none="Choose" onPick={setLater} />
      </Columns>
      {q.error && <ErrorPanel error={q.error} onRetry={() => q.refetch()} />}
      {q.data && <Both rows={q.data.items} />}
    </Card>
  );
});

/** A value with its unit, in the practice's way. */
function valueWords(v: number, unit: string, w: UnitPreferences) {
  if (unit === "cm²") return areaWords(v, w);
  if (unit === "cm") return lengthWords(v, w);
  return unit === "°" ? deg(v) : `${one(v)} ${unit}`.trim();
}

function Both({ rows }: { rows: Schemas["Comparison"][] }) {
  const w = useUnitPreferences();
  if (rows.length === 0) return <p className="quiet">Nothing was read at either of them.</p>;
  return (
    <Table>
      <thead>
        <tr>
          <th>What</th>
          <th className="n">Then</th>
          <th className="n">Later</th>
          <th>Change</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.kind + r.id + r.side}>
            <td>
              {r.kind === "movement" ? movementName(r.name) : r.name}
              {r.side && r.side !== "midline" ? `, ${r.side}` : ""}
            </td>
            <td className="n">{r.only_now ? "–" : valueWords(r.before, r.unit, w)}</td>
            <td className="n">{r.gone ? "–" : valueWords(r.after, r.unit, w)}</td>
            <td data-d={r.change?.direction}>
              {r.change?.text ?? (r.only_now ? "read only at the later one" : "read only at the earlier one")}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
