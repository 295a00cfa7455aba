// Who did or was refused what, of whom, when.
import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Day, Failed, Pick, Search, Waiting } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Columns, Row, Said } from "../../parts/layout";
import { plain, sentence } from "../../parts/words";
import { phone } from "../../theme";
import { Erasures } from "./Erasures";
import { dateFormat } from "../../parts/dates";

const Room = styled.div`
  max-width: 1040px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  .file {
    min-height: var(--touch);
    display: flex;
    align-items: center;
  }
  ${phone} {
    padding: 16px 12px 40px;
  }
`;
const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: var(--card);
  border-radius: var(--r2);
  font-variant-numeric: tabular-nums;
  th,
  td {
    text-align: left;
    padding: 8px 14px;
    border-top: 1px solid var(--line-soft);
    overflow-wrap: anywhere;
  }
  ${phone} {
    font-size: var(--t1);
    th,
    td {
      padding: 7px 6px;
    }
  }
  thead th {
    border-top: 0;
    font-size: var(--t1);
    color: var(--ink-soft);
    font-weight: 560;
  }
  [data-refused="true"] td {
    color: var(--stop);
  }
`;

export default function Audit({ me }: { me: Schemas["Me"] }) {
  const [asked, setAsked] = useState({ client: "", person: "", from: "", to: "" });
  const set = (over: Partial<typeof asked>) => setAsked({ ...asked, ...over });
  const query = Object.fromEntries(Object.entries(asked).filter(([, v]) => v));
  const clients = useQuery({
    queryKey: ["clients", "", false],
    queryFn: () => must(api.GET("/api/clients", { params: { query: {} } })),
  });
  const people = useQuery({ queryKey: ["people"], queryFn: () => must(api.GET("/api/people")) });
  const members = people.data?.items ?? [];
  const q = useInfiniteQuery({
    queryKey: ["audit", asked],
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      must(api.GET("/api/audit", { params: { query: { ...query, before: pageParam || undefined } } })),
    getNextPageParam: (last) => (last.items.length === 100 ? last.items.at(-1)?.id : undefined),
  });
  const at = dateFormat("en-GB", {
    timeZone: me.time_zone,
    dateStyle: "medium",
    timeStyle: "medium",
    hour12: me.clock_hours === 12,
  });
  const names = new Map((clients.data?.items ?? []).map((c) => [c.id, `${c.given_name} ${c.family_name}`]));
  const lines = q.data?.pages.flatMap((p) => p.items) ?? [];
  return (
    <Room>
      <h1>Audit</h1>
      <Columns $cols="repeat(auto-fit, minmax(min(170px, 100%), 1fr))" $gap={3} $align="end">
        <Search
          key={names.size}
          label="Client"
          value={asked.client || undefined}
          options={[...names.keys()]}
          describe={(id) => names.get(id) ?? id}
          none="Everyone"
          onPick={(client) => set({ client: client ?? "" })}
        />
        <Pick
          label="Who did it"
          value={asked.person || undefined}
          options={members.map((m) => m.id)}
          describe={(id) => members.find((m) => m.id === id)?.name ?? id}
          none="Everyone"
          onPick={(person) => set({ person: person ?? "" })}
        />
        <Day label="From" name="from" value={asked.from} onChange={(from) => set({ from })} />
        <Day label="To" name="to" value={asked.to} onChange={(to) => set({ to })} />
        <div className="file">
          <FileLink href={`/api/audit/csv?${new URLSearchParams(query)}`}>As a file (CSV)</FileLink>
        </div>
      </Columns>
      <Erasures at={at} />
      {q.error && <Failed error={q.error} onRetry={() => q.refetch()} />}
      {q.isPending ? <Waiting>Reading…</Waiting> : <Lines lines={lines} at={at} />}
      {q.hasNextPage && (
        <Row>
          <Button onPress={() => void q.fetchNextPage()}>Show earlier ones</Button>
        </Row>
      )}
    </Room>
  );
}

function Lines({ lines, at }: { lines: Schemas["AuditLine"][]; at: Intl.DateTimeFormat }) {
  if (lines.length === 0) return <Said className="quiet">Nothing happened of that kind.</Said>;
  return (
    <Table data-audit>
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th>Client</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={l.id} data-refused={!!l.refused}>
            <td>{at.format(new Date(l.at))}</td>
            <td>{l.person}</td>
            <td>
              {sentence(plain(l.verb))} {plain(l.kind)}
              {l.refused && ", refused"}
            </td>
            <td>{l.name}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
