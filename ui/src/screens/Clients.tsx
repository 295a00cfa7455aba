import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, Fragment, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../api/client";
import { uuidv7 } from "../core/ids";
import { Button, Card, Choice, Num, Text, Trouble, Waiting } from "../parts/controls";
import { day } from "../parts/words";

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
    font-size: 12px;
    color: var(--ink-soft);
    font-weight: 560;
    padding: 6px 10px;
  }
  td {
    padding: 11px 10px;
    border-top: 1px solid var(--line-soft);
    vertical-align: top;
  }
  td button {
    all: unset;
    cursor: pointer;
    &:focus-visible {
      outline: 2px solid var(--accent);
      outline-offset: 2px;
    }
    &[aria-pressed="true"] {
      color: var(--accent);
    }
  }
  td a,
  td button {
    font-weight: 600;
    text-decoration: none;
    color: var(--ink);
  }
`;

/** Born less than eighteen years before a day; false while no day is typed yet. */
export function underAge(born: string, on: Date) {
  const m = born.trim().match(/^(\d{4})-(\d{2})-(\d{2})$/);
  return (
    !!m &&
    new Date(Date.UTC(Number(m[1]) + 18, Number(m[2]) - 1, Number(m[3]))) > on &&
    new Date(born.trim()) <= on
  );
}

/** Register or change a client; what was typed stays until the server has it. */
export function ClientForm({
  client,
  contactsOnly,
  onSaved,
}: {
  client?: Schemas["Client"];
  /** The front desk sees and writes nothing clinical. */
  contactsOnly?: boolean;
  onSaved: (c: Schemas["Client"]) => void;
}) {
  const id = useRef(client?.id ?? uuidv7());
  const [v, set] = useState({
    given_name: client?.given_name ?? "",
    family_name: client?.family_name ?? "",
    born_on: client?.born_on ?? "",
    work: client?.work ?? "",
    complaint: client?.complaint ?? "",
    phone: client?.phone ?? "",
    email: client?.email ?? "",
    emergency_contact: client?.emergency_contact ?? "",
    guardian: client?.guardian ?? "",
  });
  const [hand, setHand] = useState<"left" | "right" | "both" | "">(client?.dominant_hand ?? "");
  const [height, setHeight] = useState<number | undefined>(client?.height_cm);
  const [error, setError] = useState<Problem>();
  const [busy, setBusy] = useState(false);
  const field = (name: keyof typeof v) => ({
    name,
    value: v[name],
    onChange: (x: string) => set({ ...v, [name]: x }),
    error: error?.fields[name],
  });
  // Only where the field is asked for; whether a guardian must agree is the core's to say.
  const minor = underAge(v.born_on, new Date());
  const [over, setOver] = useState<number>();
  const other = error?.stored as Schemas["Client"] | undefined;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (busy) return;
    setBusy(true);
    setError(undefined);
    try {
      onSaved(
        await must(
          api.PUT("/api/clients/{id}", {
            params: { path: { id: id.current } },
            body: {
              id: id.current,
              ...v,
              given_name: v.given_name.trim(),
              family_name: v.family_name.trim(),
              born_on: v.born_on.trim(),
              height_cm: height,
              dominant_hand: hand,
              cautions: client?.cautions ?? [],
              revision: over ?? client?.revision ?? 0,
            },
          }),
        ),
      );
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
        {!contactsOnly && (
          <Num
            label="Height"
            unit="cm"
            value={height}
            onCommit={setHeight}
            min={50}
            max={250}
            error={error?.fields.height_cm}
          />
        )}
      </div>
      {(minor || v.guardian) && <Text label="Guardian: who, and how to reach them" {...field("guardian")} />}
      {minor && !v.guardian.trim() && (
        <p className="quiet" role="status">
          Under age: a guardian agrees to every treatment.
        </p>
      )}
      {!contactsOnly && <Text label="Work and sport" {...field("work")} />}
      {!contactsOnly && <Text label="Complaint, in the client's words" long {...field("complaint")} />}
      <details
        open={
          contactsOnly || !!(error?.fields.phone || error?.fields.email || error?.fields.emergency_contact)
        }
      >
        <summary className="quiet" style={{ cursor: "pointer" }}>
          {contactsOnly ? "Contact, emergency" : "Hand, contact, emergency"}
        </summary>
        <div style={{ display: "grid", gap: 12, marginTop: 10 }}>
          {!contactsOnly && (
            <Choice
              label="Dominant hand"
              value={hand}
              options={["left", "right", "both"]}
              onChoose={setHand}
            />
          )}
          <Text label="Phone" {...field("phone")} />
          <Text label="E-mail" {...field("email")} />
          <Text label="In an emergency: who, and how to reach them" {...field("emergency_contact")} />
        </div>
      </details>
      {!client && (
        <Alike
          id={id.current}
          given={v.given_name.trim()}
          family={v.family_name.trim()}
          born={v.born_on.trim()}
        />
      )}
      {error && <Trouble error={error} />}
      {other && (
        <Both
          mine={v}
          stored={other}
          onMine={() => setOver(other.revision)}
          onStored={() => onSaved(other)}
          chosen={over === other.revision}
        />
      )}
      <Button type="submit" $kind="main" isDisabled={busy}>
        {busy ? "Saving…" : client ? "Save" : "Register"}
      </Button>
    </form>
  );
}

const fieldNames: Record<string, string> = {
  given_name: "Given name",
  family_name: "Family name",
  born_on: "Born",
  work: "Work and sport",
  complaint: "Complaint",
  phone: "Phone",
  email: "E-mail",
  emergency_contact: "In an emergency",
  guardian: "Guardian",
};

/** Two versions of a client beside each other: nothing is overwritten unseen. */
function Both({
  mine,
  stored,
  chosen,
  onMine,
  onStored,
}: {
  mine: Record<string, string>;
  stored: Schemas["Client"];
  chosen: boolean;
  onMine: () => void;
  onStored: () => void;
}) {
  const theirs = stored as unknown as Record<string, string | undefined>;
  const differ = Object.keys(fieldNames).filter((k) => (mine[k] ?? "").trim() !== (theirs[k] ?? ""));
  return (
    <div data-both style={{ display: "grid", gap: 8 }}>
      <dl style={{ display: "grid", gridTemplateColumns: "auto 1fr 1fr", gap: "4px 12px", margin: 0 }}>
        <dt />
        <dd className="quiet">in the record</dd>
        <dd className="quiet">typed here</dd>
        {differ.map((k) => (
          <Fragment key={k}>
            <dt className="quiet">{fieldNames[k]}</dt>
            <dd style={{ margin: 0, overflowWrap: "anywhere" }}>{theirs[k] || "–"}</dd>
            <dd style={{ margin: 0, overflowWrap: "anywhere" }}>{mine[k] || "–"}</dd>
          </Fragment>
        ))}
      </dl>
      <div style={{ display: "flex", gap: 8 }}>
        <Button onPress={onStored}>Keep the record's</Button>
        <Button isDisabled={chosen} onPress={onMine}>
          {chosen ? "Saving will put yours over it" : "Put mine over it"}
        </Button>
      </div>
    </div>
  );
}

/** Someone of a like name, or born on the same day, may be the same person. */
function Alike({ id, given, family, born }: { id: string; given: string; family: string; born: string }) {
  const { data } = useQuery({
    queryKey: ["alike", given, family, born],
    enabled: given.length > 1 && family.length > 1,
    queryFn: () =>
      must(
        api.GET("/api/clients/{id}/alike", {
          params: { path: { id }, query: { given_name: given, family_name: family, born_on: born } },
        }),
      ),
  });
  if (!data?.items.length) return null;
  return (
    <div
      role="status"
      style={{ background: "var(--warn-soft)", color: "var(--warn)", borderRadius: 10, padding: "8px 12px" }}
    >
      Already here?{" "}
      {data.items.map((c, i) => (
        <span key={c.id}>
          {i > 0 && ", "}
          <Link to={`/clients/${c.id}`} style={{ color: "inherit" }}>
            {c.given_name} {c.family_name}
          </Link>
          {c.age === undefined ? "" : `, ${c.age}`}
          {c.archived ? " (archived)" : ""}
        </span>
      ))}
    </div>
  );
}

export function Clients({ me }: { me: Schemas["Me"] }) {
  const [q, setQ] = useState("");
  const [archived, setArchived] = useState(false);
  const go = useNavigate();
  const queries = useQueryClient();
  const desk = me.role === "front-desk";
  const [chosen, setChosen] = useState<Schemas["Client"]>();
  const list = useQuery({
    queryKey: ["clients", q, archived],
    queryFn: () => must(api.GET("/api/clients", { params: { query: { q, archived } } })),
    placeholderData: (old) => old,
  });
  return (
    <Room>
      <Card>
        <h1 style={{ marginBottom: 14 }}>Clients</h1>
        <div
          style={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) auto", gap: 12, alignItems: "end" }}
        >
          <Text label="Find by name or birth date" value={q} onChange={setQ} autoFocus />
          <Choice
            quiet
            label="Which clients"
            value={archived ? "archived" : "current"}
            options={["current", "archived"]}
            onChoose={(v) => setArchived(v === "archived")}
          />
        </div>
        {list.error && <Trouble error={list.error} onRetry={() => list.refetch()} />}
        {list.isPending && <Waiting>Looking…</Waiting>}
        {list.data?.items.length === 0 && (
          <p className="quiet" style={{ padding: 16 }}>
            {q
              ? `Nobody is called or was born “${q}”. Register on the right.`
              : archived
                ? "Nobody is archived."
                : "No clients yet. Register the first on the right."}
          </p>
        )}
        {!!list.data?.items.length && (
          <table style={{ marginTop: 12 }}>
            <thead>
              <tr>
                <th>Client</th>
                <th>Age</th>
                <th>{desk ? "Phone" : "Complaint"}</th>
                <th>Visits</th>
                <th>Last</th>
              </tr>
            </thead>
            <tbody>
              {list.data.items.map((c) => (
                <tr key={c.id}>
                  <td>
                    {desk ? (
                      <button type="button" aria-pressed={chosen?.id === c.id} onClick={() => setChosen(c)}>
                        {c.given_name} {c.family_name}
                      </button>
                    ) : (
                      <Link to={`/clients/${c.id}`}>
                        {c.given_name} {c.family_name}
                      </Link>
                    )}
                  </td>
                  <td className="num">{c.age ?? "–"}</td>
                  <td className="quiet">{desk ? c.phone : c.complaint}</td>
                  <td className="num">{c.visits ?? 0}</td>
                  <td className="num quiet" style={{ whiteSpace: "nowrap" }}>
                    {c.last_visit ? day(c.last_visit, me.time_zone) : "–"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Card>
      <Card>
        <h2 style={{ marginBottom: 14 }}>
          {chosen ? `${chosen.given_name} ${chosen.family_name}` : "New client"}
        </h2>
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
        {chosen && (
          <Button style={{ marginTop: 10 }} onPress={() => setChosen(undefined)}>
            Register another
          </Button>
        )}
      </Card>
    </Room>
  );
}
