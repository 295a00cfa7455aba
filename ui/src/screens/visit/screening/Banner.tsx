// What the screening comes to, above every step: the outcome with its reasons,
// and the way to record that a clinician has cleared it.
import { useState } from "react";
import { Button, Pick, Text } from "../../../parts/controls";
import { Bullets, Columns, Notice, Row, Stack } from "../../../parts/layout";
import { plain, sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { outcomeName } from "./outcomes";
import type { QuestionID } from "./useAnswers";

export function Banner({ visit }: StepProps) {
  const s = visit.state.screening;
  const [clearing, setClearing] = useState(false);
  if (s.rules.length === 0) return null;
  const grave = s.outcome === "emergency" || s.outcome === "refer-first" || s.no_treatment;
  const clearable = s.rules.filter((r) => ["refer-first", "emergency", "avoid-here"].includes(r.outcome));
  return (
    <Notice
      className="caution"
      role={grave ? "alert" : "note"}
      data-outcome={s.outcome}
      $tone={grave ? "stop" : "warn"}
    >
      <b>{grave && s.outcome === "avoid-here" ? "Say where first" : outcomeName[s.outcome]}.</b>
      <Bullets>
        {s.rules.map((r) => (
          <li key={r.id + (r.side ?? "")}>
            {sentence(plain(r.id))}
            {r.side && r.side !== "midline" ? `, ${r.side}` : ""}. {r.text}
          </li>
        ))}
      </Bullets>
      {clearable.length > 0 && !clearing && (
        <Row>
          <Button onPress={() => setClearing(true)}>A clinician has cleared it</Button>
        </Row>
      )}
      {clearable.length > 0 && clearing && (
        <Clearing visit={visit} of={clearable.map((r) => r.id)} onDone={() => setClearing(false)} />
      )}
    </Notice>
  );
}

/** Who cleared what, and when. */
function Clearing({ visit, of, onDone }: StepProps & { of: QuestionID[]; onDone: () => void }) {
  const [question, setQuestion] = useState(of[0]);
  const [by, setBy] = useState("");
  const [on, setOn] = useState("");
  const [note, setNote] = useState("");
  const [error, setError] = useState("");
  const typed = (set: (v: string) => void) => (v: string) => {
    set(v);
    setError("");
  };
  const save = (e: React.FormEvent) => {
    e.preventDefault();
    if (!question || !by.trim() || !on.trim()) return setError("Who cleared it, and when?");
    visit.write("screening-cleared", { question, by, on, note });
    onDone();
  };
  return (
    <Stack as="form" onSubmit={save}>
      <Pick
        label="What was cleared"
        none="choose one"
        value={question}
        options={of}
        describe={(id) => sentence(plain(id))}
        onPick={setQuestion}
      />
      <Columns $cols="1fr 1fr">
        <Text label="Cleared by" value={by} onChange={typed(setBy)} error={error} />
        <Text label="When" value={on} onChange={typed(setOn)} />
      </Columns>
      <Text label="Note" value={note} onChange={setNote} />
      <Row>
        <Button type="submit" $kind="main">
          Record it
        </Button>
        <Button onPress={onDone}>Leave</Button>
      </Row>
    </Stack>
  );
}
