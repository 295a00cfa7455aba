// Records in and out: files of everything, and files that are looked at before they
// are taken in.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import { useRef, useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, ErrorPanel } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Fill, Row, Ruled, Said, Stack } from "../../parts/layout";
import { count, day } from "../../parts/words";
import { PreviewOf } from "./PreviewOf";
import { remember, remembered, type Said as SaidOf } from "./imported";

const out = [
  ["archive", "Everything (archive)"],
  ["fhir", "FHIR R4"],
  ["fhir-ndjson", "FHIR R4 (NDJSON)"],
  ["vcard", "Contacts (vCard)"],
  ["clients-csv", "Clients (CSV)"],
  ["visits-csv", "Visits (CSV)"],
  ["points-csv", "Points (CSV)"],
  ["holds-csv", "Holds (CSV)"],
  ["ranges-csv", "Ranges (CSV)"],
] as const;

const kinds = {
  archive: "an archive",
  "clients-csv": "clients (CSV)",
  "readings-csv": "readings (CSV)",
  fhir: "FHIR",
  vcard: "contacts (vCard)",
  icalendar: "appointments (iCalendar)",
} as const;
export type Kind = keyof typeof kinds;

export interface Chosen extends SaidOf {
  file: File;
  kind: Kind;
}

/** Sends a file to be looked at, or taken in. */
async function send(c: Chosen, take: boolean): Promise<Schemas["Preview"]> {
  const { file, kind } = c;
  const query = new URLSearchParams({ kind, file: file.name, day: c.day, ...(take ? { take: "true" } : {}) });
  if (c.leave.length) query.set("leave", c.leave.join(","));
  for (const [name, field] of Object.entries(c.columns)) query.append("column", `${name}=${field}`);
  const res = await fetch(`/api/imports?${query}`, {
    method: "POST",
    headers: { "Content-Type": "application/octet-stream" },
    body: file,
  });
  const body = await res.json();
  if (!res.ok) throw new Error(res.status === 413 ? "The file is larger than 64 MB." : body.detail);
  return body as Schemas["Preview"];
}

export function Records({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [kind, setKind] = useState<Kind>("archive");
  const [chosen, setChosen] = useState<Chosen>();
  const [seen, setSeen] = useState<Schemas["Preview"]>();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<Error>();
  const latest = useRef<Chosen>(undefined);
  const act = async (c: Chosen, take: boolean) => {
    // What was said counts at once: the next choice builds on it, and only its answer is shown.
    latest.current = c;
    setChosen(c);
    setBusy(true);
    setError(undefined);
    try {
      const answer = await send(c, take);
      if (latest.current !== c) return;
      setSeen(answer);
      if (take) {
        remember(c);
        setChosen(undefined);
        await queries.invalidateQueries();
      }
    } catch (e) {
      if (latest.current === c) setError(e as Error);
    } finally {
      if (latest.current === c) setBusy(false);
    }
  };
  return (
    <Card $gap={3} data-records>
      <h2>Export and import</h2>
      <Row $wrap>
        {out.map(([format, name]) => (
          <FileLink key={format} href={`/api/practice/export/${format}`}>
            {name}
          </FileLink>
        ))}
        <FileLink href="/api/practice/print/blank">Blank assessment sheet (PDF)</FileLink>
      </Row>
      <Choice
        label="Import as"
        value={kind}
        options={Object.keys(kinds) as Kind[]}
        describe={(k) => kinds[k]}
        onChoose={setKind}
      />
      <Row $gap={3}>
        <FileTrigger
          onSelect={(f) => f?.[0] && void act({ file: f[0], kind, leave: [], ...remembered(kind) }, false)}
        >
          <Button isDisabled={busy}>Choose a file to look at</Button>
        </FileTrigger>
        {busy && <Said role="status">Reading it…</Said>}
      </Row>
      {error && <ErrorPanel error={error} />}
      {seen && (
        <PreviewOf
          seen={seen}
          name={chosen?.file.name}
          busy={busy}
          said={chosen}
          onSay={chosen && ((over) => void act({ ...chosen, ...over }, false))}
          onTake={chosen && (() => void act(chosen, true))}
          onLeave={() => {
            latest.current = undefined;
            setBusy(false);
            setSeen(undefined);
            setChosen(undefined);
          }}
        />
      )}
      <Taken zone={me.time_zone} />
    </Card>
  );
}

/** What was taken in before; each can be undone. */
function Taken({ zone }: { zone: string }) {
  const queries = useQueryClient();
  const [error, setError] = useState<Error>();
  const q = useQuery({ queryKey: ["imports"], queryFn: () => must(api.GET("/api/imports")) });
  const undo = async (id: string) => {
    setError(undefined);
    try {
      await must(api.POST("/api/imports/{id}/undo", { params: { path: { id } } }));
      await queries.invalidateQueries();
    } catch (e) {
      setError(e as Error);
    }
  };
  if (!q.data?.items.length) return null;
  return (
    <Stack $gap={2}>
      <h3>Imported before</h3>
      {error && <ErrorPanel error={error} />}
      {q.data.items.map((i) => (
        <Ruled key={i.id} $cols="minmax(0, 1fr) auto" $align="center">
          <Fill>
            {day(i.at, zone)}, {i.by}: {i.file || i.kind}
            <br />
            <span className="quiet">
              {count(i.counts.clients, "client")}, {count(i.counts.visits, "visit")}
            </span>
          </Fill>
          {i.undone ? (
            <span className="quiet">undone</span>
          ) : (
            <Button onPress={() => void undo(i.id)}>Undo</Button>
          )}
        </Ruled>
      ))}
    </Stack>
  );
}
