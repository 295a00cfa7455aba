// What the screening comes to, above every step: the outcome with its reasons,
// and the way to record a clearance with what it rests on.
import { useMemo, useState } from "react";
import type { Schemas } from "../../../api/client";
import { Button, Choice, Pick, Text } from "../../../parts/controls";
import { Bullets, Columns, Notice, Row, Stack } from "../../../parts/layout";
import { plain, sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { outcomeName } from "./outcomes";
import type { QuestionID } from "./useAnswers";

export function Banner({ visit, emergency }: StepProps & { emergency: string }) {
  const s = visit.state.screening;
  const [clearing, setClearing] = useState(false);
  const { core } = visit;
  const nameOf = useMemo(
    () => new Map(core.lists.questions.map((q) => [q.id, q.ask.replace(/\?$/, "")])),
    [core],
  );
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
          <li key={r.id + (r.side ?? "") + r.text}>
            {nameOf.get(r.id) ?? sentence(plain(r.id))}
            {r.side && r.side !== "midline" ? `, ${r.side}` : ""}. {r.text}
          </li>
        ))}
      </Bullets>
      {s.outcome === "emergency" && <b>Urgent medical care: {emergency}.</b>}
      {clearable.length > 0 && !clearing && (
        <Row>
          <Button onPress={() => setClearing(true)}>Record a clearance</Button>
        </Row>
      )}
      {clearable.length > 0 && clearing && (
        <Clearing
          visit={visit}
          of={clearable.map((r) => r.id)}
          nameOf={nameOf}
          onDone={() => setClearing(false)}
        />
      )}
    </Notice>
  );
}

type Basis = NonNullable<Schemas["ScreeningCleared"]["basis"]>;

const bases: Record<Basis, string> = {
  clinician: "A clinician cleared it",
  resolved: "I examined it today: resolved",
  mistaken: "The answer was a mistake",
};

/** Who cleared what, when and on what basis. Which basis lifts which answer is the core's
 * to say; its refusal is shown beside the field. */
function Clearing({
  visit,
  of,
  nameOf,
  onDone,
}: StepProps & { of: QuestionID[]; nameOf: Map<string, string>; onDone: () => void }) {
  const [question, setQuestion] = useState(of[0]);
  const [basis, setBasis] = useState<Basis>("clinician");
  const [by, setBy] = useState("");
  const [on, setOn] = useState("");
  const [note, setNote] = useState("");
  const [error, setError] = useState("");
  const typed =
    <T,>(set: (v: T) => void) =>
    (v: T) => {
      set(v);
      setError("");
    };
  const byClinician = basis === "clinician";
  const unknown = (id: QuestionID) =>
    visit.state.known_answers.some((a) => a.question === id && a.answer === "unknown" && !a.cleared);
  const save = async (e: React.FormEvent) => {
    e.preventDefault();
    if (!question) return;
    if (byClinician && (!by.trim() || !on.trim())) return setError("Who cleared it, and when?");
    if (basis === "mistaken" && note.trim().length < 10) return setError("Say in a sentence what was wrong.");
    const cleared = byClinician
      ? { question, basis, by, on, note }
      : { question, basis, by: "the therapist", on: "today", note };
    if (basis === "resolved" && unknown(question)) {
      // Examined today: the answer that it gives and the clearance are one word.
      visit.write("screening-answered", { answers: [{ question, answer: "no" }] });
      visit.write("screening-cleared", cleared);
      return onDone();
    }
    const refused = await visit.preview("screening-cleared", cleared);
    if (refused) return setError(refused);
    visit.write("screening-cleared", cleared);
    onDone();
  };
  return (
    <Stack as="form" onSubmit={save}>
      <Pick
        label="What was cleared"
        none="choose one"
        value={question}
        options={of}
        describe={(id) => nameOf.get(id) ?? sentence(plain(id))}
        onPick={typed(setQuestion)}
      />
      <Choice
        label="On what basis"
        value={basis}
        options={["clinician", "resolved", "mistaken"] as const}
        describe={(b) => bases[b]}
        onChoose={typed(setBasis)}
      />
      {byClinician && (
        <Columns $cols="1fr 1fr">
          <Text label="Cleared by" value={by} onChange={typed(setBy)} error={error} />
          <Text label="When" value={on} onChange={typed(setOn)} />
        </Columns>
      )}
      <Text
        label={basis === "mistaken" ? "What was wrong" : "Note"}
        value={note}
        onChange={typed(setNote)}
        error={byClinician ? undefined : error}
      />
      <Row>
        <Button type="submit" $kind="main">
          Record it
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </Stack>
  );
}
