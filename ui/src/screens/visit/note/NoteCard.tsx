// The note: written by the core from what was done, edited, signed; afterwards
// only added to.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { useAskVisit } from "../../../core/useAsk";
import { Button, Card, Text } from "../../../parts/controls";
import { FileLink } from "../../../parts/FileLink";
import { Row, Said, Stack } from "../../../parts/layout";
import { sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { Addenda } from "./Addenda";
import { NoteBody } from "./NoteBody";
import { type NoteText, noteParts, sameText, textOf } from "./parts";
import { Versions } from "./Versions";
import { may } from "../../../rights";
import { dateFormat } from "../../../parts/dates";

interface Props extends StepProps {
  me: Schemas["Me"];
}

export function NoteCard({ visit, me }: Props) {
  const { state, open, write } = visit;
  const asked = { offset_min: open.offset_min };
  const written = useAskVisit(visit, "visit-note", asked);
  const [draft, setDraft] = useState<NoteText>();
  const kept = state.signed ?? state.drafts.at(-1);
  const text = kept ? textOf(kept) : written;
  /** What is signed is what the core writes of everything that is in the log. */
  const sign = async () => {
    const signed = kept ? textOf(kept) : await visit.ask("visit-note", asked);
    write("note-signed", { ...signed, name: me.name });
  };
  const keep = (t: NoteText) => {
    write("note-drafted", t);
    setDraft(undefined);
  };
  if (!text) return null;
  return (
    <Card $gap={3} data-note={state.signed ? "signed" : kept ? "edited" : "written"}>
      <Row $wrap>
        <h2>Note</h2>
        <Status visit={visit} me={me} />
      </Row>
      {draft ? (
        <Edit
          text={draft}
          onChange={setDraft}
          onKeep={() => keep(draft)}
          onLeave={() => setDraft(undefined)}
        />
      ) : (
        <NoteBody text={text} />
      )}
      {!draft && !state.signed && (
        <Row $wrap>
          {!!state.closed_ms && (
            <Button $kind="main" onPress={sign}>
              Sign as {me.name}
            </Button>
          )}
          <Button onPress={() => setDraft(text)}>Edit the note</Button>
          {kept && written && !sameText(text, written) && (
            <Button onPress={() => keep(written)}>Write it anew from the visit</Button>
          )}
        </Row>
      )}
      {state.signed?.by_student && !state.signed.countersigned && may(me, "note-countersigned") && (
        <Row>
          <Button $kind="main" onPress={() => write("note-countersigned", { name: me.name })}>
            Countersign as {me.name}
          </Button>
        </Row>
      )}
      <Print visit={open.visit.id} />
      <Versions visit={visit} me={me} />
      {(!!state.closed_ms || state.addenda.length > 0) && <Addenda visit={visit} me={me} />}
    </Card>
  );
}

/** The server sets the page, from what has reached it. */
function Print({ visit }: { visit: string }) {
  return (
    <Said $small>
      <FileLink href={`/api/visits/${visit}/print/note`}>Print the note (PDF)</FileLink>
    </Said>
  );
}

function Status({ visit: { state, open }, me }: Props) {
  const at = (ms: number) =>
    dateFormat("en-GB", {
      timeZone: me.time_zone,
      dateStyle: "medium",
      timeStyle: "short",
      hour12: me.clock_hours === 12,
    }).format(ms);
  const counter = state.signed?.countersigned;
  if (state.signed)
    return (
      <Said as="b" $tone="good">
        Signed by {state.signed.name}, {at(state.signed.at_ms)}
        {counter && `; countersigned by ${counter.name}, ${at(counter.at_ms)}`}
        {state.signed.by_student && !counter && "; waits for a countersignature"}
      </Said>
    );
  const last = state.drafts.at(-1);
  if (!last) return <Said className="quiet">Written from the visit; not signed.</Said>;
  const who = open.team.find((m) => m.id === last.author)?.name ?? "a former colleague";
  return (
    <Said className="quiet">
      Edited by {who}, {at(last.at_ms)}; not signed.
    </Said>
  );
}

interface EditProps {
  text: NoteText;
  onChange: (t: NoteText) => void;
  onKeep: () => void;
  onLeave: () => void;
}

function Edit({ text, onChange, onKeep, onLeave }: EditProps) {
  return (
    <Stack $gap={3}>
      {noteParts.map((p) => (
        <Text
          key={p}
          label={sentence(p)}
          long
          value={text[p]}
          onChange={(v) => onChange({ ...text, [p]: v })}
        />
      ))}
      <Row>
        <Button $kind="main" onPress={onKeep}>
          Keep it
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
      </Row>
    </Stack>
  );
}
