import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../api/client";
import { uuidv7 } from "../core/ids";
import { Button, Card, Num, Text, Trouble, Waiting } from "../parts/controls";
import { day } from "../parts/words";

const Room = styled.div`max-width: 1180px; margin: 0 auto; padding: 28px; display: grid; grid-template-columns: minmax(0, 1fr) 380px; gap: 28px; align-items: start;
  table { width: 100%; border-collapse: collapse; }
  th { text-align: left; font-size: 12px; color: var(--ink-soft); font-weight: 560; padding: 6px 10px; }
  td { padding: 11px 10px; border-top: 1px solid var(--line-soft); vertical-align: top; }
  td a { font-weight: 600; text-decoration: none; color: var(--ink); }
`;

/** Register or change a client; what was typed stays until the server has it. */
export function ClientForm({ client, onSaved }: { client?: Schemas["Client"]; onSaved: (c: Schemas["Client"]) => void }) {
  const id = useRef(client?.id ?? uuidv7());
  const [v, set] = useState({ given_name: client?.given_name ?? "", family_name: client?.family_name ?? "", born_on: client?.born_on ?? "", work: client?.work ?? "", complaint: client?.complaint ?? "" });
  const [height, setHeight] = useState<number | undefined>(client?.height_cm);
  const [error, setError] = useState<Problem>();
  const [busy, setBusy] = useState(false);
  const field = (name: keyof typeof v) => ({ name, value: v[name], onChange: (x: string) => set({ ...v, [name]: x }), error: error?.fields[name] });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (busy) return;
    setBusy(true);
    setError(undefined);
    try {
      onSaved(await must(api.PUT("/api/clients/{id}", {
        params: { path: { id: id.current } },
        body: { id: id.current, ...v, given_name: v.given_name.trim(), family_name: v.family_name.trim(), born_on: v.born_on.trim(), height_cm: height, cautions: client?.cautions ?? [], revision: client?.revision ?? 0 },
      })));
    } catch (x) {
      setError(x as Problem);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form onSubmit={submit} noValidate style={{ display: "grid", gap: 12 }}>
      <Text label="Given name" {...field("given_name")} />
      <Text label="Family name" {...field("family_name")} />
      <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 12 }}>
        <Text label="Born (YYYY-MM-DD)" {...field("born_on")} />
        <Num label="Height" unit="cm" value={height} onCommit={setHeight} min={50} max={250} error={error?.fields.height_cm} />
      </div>
      <Text label="Work and sport" {...field("work")} />
      <Text label="Complaint, in the client's words" long {...field("complaint")} />
      {error && <Trouble error={error} />}
      <Button type="submit" $kind="main" isDisabled={busy}>{busy ? "Saving…" : client ? "Save" : "Register"}</Button>
    </form>
  );
}

export function Clients({ me }: { me: Schemas["Me"] }) {
  const [q, setQ] = useState("");
  const go = useNavigate();
  const queries = useQueryClient();
  const list = useQuery({ queryKey: ["clients", q], queryFn: () => must(api.GET("/api/clients", { params: { query: { q } } })), placeholderData: (old) => old });
  return (
    <Room>
      <Card>
        <h1 style={{ marginBottom: 14 }}>Clients</h1>
        <Text label="Find by name" value={q} onChange={setQ} autoFocus />
        {list.error && <Trouble error={list.error} onRetry={() => list.refetch()} />}
        {list.isPending && <Waiting>Looking…</Waiting>}
        {list.data?.items.length === 0 && <p className="quiet" style={{ padding: 16 }}>{q ? `Nobody is called “${q}”. Register on the right.` : "No clients yet. Register the first on the right."}</p>}
        {!!list.data?.items.length && (
          <table style={{ marginTop: 12 }}>
            <thead><tr><th>Client</th><th>Age</th><th>Complaint</th><th>Visits</th><th>Last</th></tr></thead>
            <tbody>
              {list.data.items.map((c) => (
                <tr key={c.id}>
                  <td><Link to={`/clients/${c.id}`}>{c.given_name} {c.family_name}</Link></td>
                  <td className="num">{c.age ?? "–"}</td>
                  <td className="quiet">{c.complaint}</td>
                  <td className="num">{c.visits ?? 0}</td>
                  <td className="num quiet" style={{ whiteSpace: "nowrap" }}>{c.last_visit ? day(c.last_visit, me.time_zone) : "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Card>
      <Card>
        <h2 style={{ marginBottom: 14 }}>New client</h2>
        <ClientForm onSaved={(c) => { void queries.invalidateQueries({ queryKey: ["clients"] }); go(`/clients/${c.id}`); }} />
      </Card>
    </Room>
  );
}
