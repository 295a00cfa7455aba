// All clients, found by name or birth date, and a new one.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, Text, ErrorPanel, Waiting, bare } from "../../parts/controls";
import { Columns, Padded } from "../../parts/layout";
import { ClientForm } from "./ClientForm";
import { ClientTable } from "./ClientTable";
import { phone, upright } from "../../theme";
import { may } from "../../rights";

const Room = styled.div`
  max-width: 1180px;
  margin: 0 auto;
  padding: 28px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 28px;
  align-items: start;
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    text-align: left;
    font-size: var(--t1);
    color: var(--ink-soft);
    font-weight: 560;
    padding: 6px 10px;
  }
  td {
    padding: 11px 10px;
    border-top: 1px solid var(--line-soft);
    vertical-align: top;
  }
  td a,
  td button {
    ${bare}
    font-weight: 600;
    text-decoration: none;
    color: var(--ink);
  }
  td button[aria-pressed="true"] {
    color: var(--accent);
  }
  td.last {
    white-space: nowrap;
  }
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
  }
  ${phone} {
    padding: 12px;
    table {
      table-layout: fixed;
    }
    td {
      overflow-wrap: anywhere;
    }
    :is(th, td):nth-child(2),
    :is(th, td):nth-child(4) {
      display: none;
    }
    :is(th, td):first-child {
      padding-left: 0;
    }
  }
`;

export default function Clients({ me }: { me: Schemas["Me"] }) {
  const [q, setQ] = useState("");
  const [archived, setArchived] = useState(false);
  const go = useNavigate();
  const queries = useQueryClient();
  const desk = !may(me, "open-visit");
  const [chosen, setChosen] = useState<Schemas["Client"]>();
  const list = useQuery({
    queryKey: ["clients", q, archived],
    queryFn: () => must(api.GET("/api/clients", { params: { query: { q, archived } } })),
    placeholderData: (old) => old,
  });
  return (
    <Room>
      <Card $gap={3}>
        <h1>Clients</h1>
        <Columns $cols="minmax(0, 1fr) auto" $gap={3} $align="end">
          <Text label="Find by name or birth date" value={q} onChange={setQ} autoFocus />
          <Choice
            quiet
            label="Which clients"
            value={archived ? "archived" : "current"}
            options={["current", "archived"]}
            onChoose={(v) => setArchived(v === "archived")}
          />
        </Columns>
        {list.error && <ErrorPanel error={list.error} onRetry={() => list.refetch()} />}
        {list.isPending && <Waiting>Looking…</Waiting>}
        {list.data?.items.length === 0 && (
          <Padded as="p" className="quiet">
            {nobody(q, archived)}
          </Padded>
        )}
        {!!list.data?.items.length && (
          <ClientTable
            clients={list.data.items}
            zone={me.time_zone}
            chosen={chosen?.id}
            onChoose={desk ? setChosen : undefined}
          />
        )}
      </Card>
      <Card $gap={3}>
        <h2>{chosen ? `${chosen.given_name} ${chosen.family_name}` : "New client"}</h2>
        <ClientForm
          key={chosen ? `${chosen.id}${chosen.revision}` : "new"}
          client={chosen}
          contactsOnly={desk}
          onSaved={(c) => {
            void queries.invalidateQueries({ queryKey: ["clients"] });
            if (desk) setChosen(c);
            else go(`/clients/${c.id}`);
          }}
        />
        {chosen && <Button onPress={() => setChosen(undefined)}>Register another</Button>}
      </Card>
    </Room>
  );
}

function nobody(q: string, archived: boolean) {
  if (q) return `Nobody is called or was born “${q}”. Register on the right.`;
  return archived ? "Nobody is archived." : "No clients yet. Register the first on the right.";
}
