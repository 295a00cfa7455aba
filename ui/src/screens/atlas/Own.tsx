// The practice's own note and sites; what is shipped stays as it is.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button, Text, ErrorPanel, WordButton } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { count, one } from "../../parts/words";
import { NewSite } from "./NewSite";
import { Sheet } from "./Sheet";
import { type OwnEdits, useOwn } from "./useOwn";

interface Props {
  muscle: Schemas["MuscleID"];
  own: Schemas["OwnAtlas"];
  /** Own sites are added to what is pressed. */
  pressed: boolean;
}

export function Own({ muscle, own, pressed }: Props) {
  const edits = useOwn(muscle);
  const [adding, setAdding] = useState(false);
  const [asking, setAsking] = useState(false);
  /** Begins the note's field anew. */
  const [restored, setRestored] = useState(0);
  const note = own.notes.find((n) => n.muscle === muscle);
  const sites = own.sites.filter((s) => s.muscle === muscle);
  return (
    <Sheet>
      <h3>Of this practice</h3>
      {edits.error && <ErrorPanel error={edits.error} />}
      <Note key={`${note?.revision} ${restored}`} note={note} keep={edits.keepNote} />
      <Sites sites={sites} edits={edits} />
      {adding ? (
        <NewSite
          onKeep={(s) => void edits.putSite({ ...s, muscle }, () => setAdding(false))}
          onLeave={() => setAdding(false)}
        />
      ) : (
        <Row $wrap>
          {pressed && <Button onPress={() => setAdding(true)}>Add an own site</Button>}
          {(note || sites.length > 0) && !asking && (
            <Button onPress={() => setAsking(true)}>Restore what was shipped</Button>
          )}
        </Row>
      )}
      {asking && (
        <div role="alert">
          <p>This takes the practice's note and {count(sites.length, "own site")} off this muscle.</p>
          <Row>
            <Button
              $kind="stop"
              onPress={() =>
                void edits.restore(() => {
                  setAsking(false);
                  setRestored((n) => n + 1);
                })
              }
            >
              Restore
            </Button>
            <Button onPress={() => setAsking(false)}>Keep this version</Button>
          </Row>
        </div>
      )}
    </Sheet>
  );
}

interface NoteProps {
  note?: Schemas["OwnNote"];
  keep: OwnEdits["keepNote"];
}

function Note({ note, keep }: NoteProps) {
  const kept = note?.text ?? "";
  const [text, setText] = useState(kept);
  return (
    <>
      <Text label={note ? `Note, last by ${note.by}` : "Note"} long value={text} onChange={setText} />
      {text !== kept && (
        <Button $kind="main" onPress={() => void keep(text, note?.revision ?? 0)}>
          Keep the note
        </Button>
      )}
    </>
  );
}

/** The own sites; a removed one can be brought back. */
function Sites({ sites, edits }: { sites: Schemas["OwnSite"][]; edits: OwnEdits }) {
  const [gone, setGone] = useState<Schemas["OwnSite"]>();
  return (
    <>
      {sites.length > 0 && (
        <ul className="own">
          {sites.map((s) => (
            <Row as="li" key={s.id}>
              <Fill>
                {s.name}{" "}
                <span className="quiet">
                  {one(s.place.along_pct)} % along, {one(s.place.across_mm)} mm across
                </span>
              </Fill>
              <Button onPress={() => void edits.removeSite(s.id, () => setGone(s))}>Remove</Button>
            </Row>
          ))}
        </ul>
      )}
      {gone && (
        <p role="status">
          “{gone.name}” removed.{" "}
          <WordButton onPress={() => void edits.putSite(gone, () => setGone(undefined))}>
            Bring it back
          </WordButton>
        </p>
      )}
    </>
  );
}
