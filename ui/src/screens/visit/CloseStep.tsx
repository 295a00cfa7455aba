// What was done, the note, and the end of the visit.
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, Card, Text } from "../../parts/controls";
import { beforeAfter, clock, deg, listed, movementName, one, plain } from "../../parts/words";
import { Bullets, Notice, Row, Said, Stack } from "../../parts/layout";
import { readingWords, useUnitPreferences } from "../../parts/unitPreferences";
import { Receipts } from "../receipts/Receipts";
import { Aftercare } from "./Aftercare";
import { NextUp } from "./next/NextUp";
import { Incident } from "./note/Incident";
import { Letter } from "./note/Letter";
import { NoteCard } from "./note/NoteCard";
import { Timeline } from "./Timeline";
import { usePointWords } from "./pointWords";
import type { StepProps } from "./StepProps";

export function CloseStep({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const { state, write, open } = visit;
  const [note, setNote] = useState(state.note ?? "");
  const grave = state.screening.no_treatment && !state.holds.some((h) => h.status !== "aside");
  const empty = state.points.length + state.ranges.length + state.gauges.length === 0;
  return (
    <>
      {empty && !state.closed_ms && (
        <NextUp
          visit={visit}
          title="Nothing done yet"
          why="Nothing has been measured, charted or pressed. The visit can be closed all the same."
        />
      )}
      {grave && !state.closed_ms && <NotTreated visit={visit} emergency={me.emergency_number} />}
      <Card>
        <h2>What was done</h2>
        <Done visit={visit} />
        {!state.closed_ms && <SecondSide visit={visit} />}
        <Stack $gap={3}>
          {!state.closed_ms && (
            <Text
              label="Remarks"
              long
              value={note}
              onChange={setNote}
              onBlur={() => note !== (state.note ?? "") && write("note-written", { text: note })}
            />
          )}
          {!state.closed_ms && <NextTime visit={visit} />}
          <Row>
            {state.closed_ms ? (
              <Said as="b" $tone="good">
                {state.not_treated
                  ? `Closed as not treated. Advised: ${state.not_treated}`
                  : "This visit is closed."}
              </Said>
            ) : (
              <Button $kind={grave ? "plain" : "main"} onPress={() => write("visit-closed", {})}>
                Close the visit
              </Button>
            )}
            <Link className="stands" to={`/clients/${open.client.id}/progress`}>
              See progress
            </Link>
          </Row>
        </Stack>
      </Card>
      <NoteCard visit={visit} me={me} />
      <Letter visit={visit} me={me} />
      <Incident visit={visit} />
      <Timeline visit={visit} me={me} />
      {!empty && <Aftercare visit={visit} me={me} />}
      {state.closed_ms && <Receipts visit={open.visit.id} />}
    </>
  );
}

/** What was charted on the other side of what was pressed, and still waits. */
function SecondSide({ visit }: StepProps) {
  const names = usePointWords(visit);
  const waiting = (visit.state.second_side ?? []).map((id) => names.get(id));
  const oneSided = visit.state.one_sided ?? [];
  if (waiting.length + oneSided.length === 0) return null;
  return (
    <Notice data-second-side>
      <b>The second side was not done:</b> {[...waiting, ...oneSided].join("; ")}.
    </Notice>
  );
}

/** The end of a visit in which the screening allows nothing: what the client was told. */
function NotTreated({ visit, emergency }: StepProps & { emergency: string }) {
  const urgent = visit.state.screening.outcome === "emergency";
  const [advised, setAdvised] = useState(
    urgent
      ? `Urgent medical care: call ${emergency}, or go to the nearest hospital.`
      : "See a doctor before the next visit.",
  );
  const [error, setError] = useState("");
  return (
    <Notice $tone="stop">
      <b>No treatment today.</b>
      <Stack
        as="form"
        $gap={3}
        onSubmit={async (e) => {
          e.preventDefault();
          const body = { not_treated: true, advised };
          const refused = await visit.preview("visit-closed", body);
          if (refused) setError(refused);
          else visit.write("visit-closed", body);
        }}
      >
        <Text
          label="What the client was advised"
          long
          value={advised}
          error={error}
          onChange={(v) => {
            setAdvised(v);
            setError("");
          }}
        />
        <Row>
          <Button type="submit" $kind="main">
            Close as not treated
          </Button>
        </Row>
      </Stack>
    </Notice>
  );
}

/** What is meant to be done at the next visit; it is shown when that opens. */
function NextTime({ visit }: StepProps) {
  const { state, write } = visit;
  const [text, setText] = useState(state.next ?? "");
  return (
    <Text
      key={state.next}
      label="Next time"
      value={text}
      onChange={setText}
      onBlur={() => text !== (state.next ?? "") && write("next-noted", { text })}
    />
  );
}

/** "1:12 pressed, graded stages, released". */
const heldWords = ({ summary, start, result }: Schemas["Hold"]) =>
  listed(summary.pressure_s > 0 && `${clock(summary.pressure_s)} pressed`, plain(start.protocol), result);

/** Points, ranges and gauges, before and after. */
function Done({ visit }: StepProps) {
  const w = useUnitPreferences();
  const { state, core } = visit;
  const names = usePointWords(visit);
  const gauges = core.lists.gauges;
  return (
    <>
      {state.points.length + state.ranges.length + state.gauges.length === 0 && (
        <p className="quiet">Nothing has been measured, charted or pressed in this visit.</p>
      )}
      <Bullets>
        {state.points.map((p) => {
          const holds = state.holds.filter((h) => h.point === p.point && h.status !== "aside");
          return (
            <li key={p.point}>
              {names.get(p.point)}: {beforeAfter(p.nprs, p.after_nprs, (v) => `${one(v)} of 10`)}
              {holds.map((h) => `; ${heldWords(h)}`)}
            </li>
          );
        })}
        {state.ranges.map((r) => (
          <li key={r.movement + r.side}>
            {movementName(r.movement)}
            {r.side === "midline" ? "" : `, ${r.side}`}: {beforeAfter(r.before, r.after, deg)}
            {r.change ? `, ${r.change.text}` : ""}
          </li>
        ))}
        {state.gauges
          .filter((g) => g.before !== undefined)
          .map((g) => {
            const info = gauges.find((x) => x.id === g.gauge);
            const value = (v: number) => readingWords(v, info?.unit ?? "", w);
            return (
              <li key={g.gauge + g.side}>
                {info?.name}
                {g.side === "midline" ? "" : `, ${g.side}`}: {beforeAfter(g.before, g.after, value)}
              </li>
            );
          })}
      </Bullets>
    </>
  );
}
