// A client's whole record: out as files; kept by law; gone for good.
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Disclosed, Text, ErrorPanel } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Row, Said, Stack } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { may } from "../../rights";

const files: [string, string][] = [
  ["archive", "Archive (JSON)"],
  ["fhir", "FHIR R4 Bundle"],
  ["points-csv", "Points (CSV)"],
  ["holds-csv", "Holds (CSV)"],
  ["ranges-csv", "Ranges (CSV)"],
  ["body-svg", "Body map (SVG)"],
  ["vcard", "vCard"],
];

interface Props {
  c: Schemas["Client"];
  me: Schemas["Me"];
  onChanged: () => void;
}

export function Record({ c, me, onChanged }: Props) {
  return (
    <Card $gap={3} data-record>
      <h2>The whole record</h2>
      <Row $wrap $gap={3}>
        {files.map(([format, name]) => (
          <FileLink key={format} href={`/api/clients/${c.id}/export/${format}`}>
            {name}
          </FileLink>
        ))}
        <FileLink href={`/api/clients/${c.id}/print/progress`}>Progress (PDF)</FileLink>
      </Row>
      {may(me, "erase-client") && (
        <>
          <LawHold c={c} onChanged={onChanged} />
          {!c.legal_hold && (
            <Disclosed summary="Erase this record for good" data-erase>
              <Erase c={c} />
            </Disclosed>
          )}
        </>
      )}
    </Card>
  );
}

function LawHold({ c, onChanged }: Omit<Props, "me">) {
  const [reason, setReason] = useState("");
  const { error, busy, run } = useTry();
  const hold = async (text: string) => {
    const params = { path: { id: c.id } };
    if (
      await run(async () => must(api.PUT("/api/clients/{id}/law-hold", { params, body: { reason: text } })))
    ) {
      setReason("");
      onChanged();
    }
  };
  if (c.legal_hold)
    return (
      <Row $gap={3}>
        <Said $tone="warn">Kept by law: {c.legal_hold}</Said>
        <Button isDisabled={busy} onPress={() => hold("")}>
          It need not be kept any more
        </Button>
        {error && <ErrorPanel error={error} />}
      </Row>
    );
  return (
    <Disclosed summary="Legal hold" data-law>
      <Row $gap={3} $align="end" $wrap>
        <Text label="Why it must be kept" value={reason} onChange={setReason} />
        <Button isDisabled={busy || reason.trim().length < 3} onPress={() => hold(reason.trim())}>
          Keep it
        </Button>
      </Row>
      {error && <ErrorPanel error={error} />}
    </Disclosed>
  );
}

function Erase({ c }: { c: Schemas["Client"] }) {
  const go = useNavigate();
  const [name, setName] = useState("");
  const [reason, setReason] = useState("");
  const { error, fields, busy, run } = useTry();
  const whole = `${c.given_name} ${c.family_name}`;
  const erase = async () => {
    const params = { path: { id: c.id } };
    const body = { name, reason: reason.trim() };
    if (await run(async () => must(api.POST("/api/clients/{id}/erase", { params, body }))))
      void go("/clients");
  };
  return (
    <Stack $gap={3}>
      <p className="quiet">
        Visits, holds, drawings, photographs and the log go for good; this cannot be undone. What stays says
        that a record was erased, when, by whom and why, without a name. Backups made before keep it until
        they are thrown away in their turn. Law may ask you to keep a record for years: ask first.
      </p>
      <Text label="Why (without the name)" value={reason} onChange={setReason} error={fields.reason} />
      <Text label={`Type the name: ${whole}`} value={name} onChange={setName} error={fields.name} />
      {error?.message && Object.keys(fields).length === 0 && <ErrorPanel error={error} />}
      <Row>
        <Button $kind="stop" isDisabled={busy || name !== whole || reason.trim().length < 3} onPress={erase}>
          Erase it for good
        </Button>
      </Row>
    </Stack>
  );
}
