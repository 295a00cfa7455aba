// Where we left off: last time on one screen, everything a touch away from being
// taken into today.
import { useContext, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Card, Choice, Text } from "../../../parts/controls";
import { Said, Stack } from "../../../parts/layout";
import { clock, day, listed, one, plain, sentence } from "../../../parts/words";
import { pointName, useLeftWords } from "../pointWords";
import { WhatNext } from "../next/WhatNext";
import type { StepProps } from "../StepProps";

type Left = Schemas["LeftPoint"];

const Points = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: var(--s1) var(--s4);
    align-items: center;
    padding: var(--s3) 0;
    border-top: 1px solid var(--line-soft);
  }
  li:first-child {
    border-top: 0;
  }
  .numbers {
    font: 620 var(--t4) / 1 var(--text);
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  .numbers small {
    font-weight: 450;
    color: var(--ink-soft);
  }
`;

export function LastStep({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const left = visit.open.left_off;
  if (!left) return null;
  const reached = left.points.filter((p) => p.holds.length > 0);
  const open = left.points.filter((p) => p.holds.length === 0);
  return (
    <>
      <Reaction visit={visit} />
      <Card data-last>
        <h2>Last time, {day(new Date(left.at_ms).toISOString(), me.time_zone)}</h2>
        {reached.length > 0 && <List visit={visit} points={reached} />}
        {open.length > 0 && <h3>Left out</h3>}
        {open.length > 0 && <List visit={visit} points={open} />}
        {left.searched.length > 0 && (
          <p>
            <b>Searched.</b>{" "}
            {left.searched.map((s) => `${pointName(visit.core, s)}: ${resultWords[s.result]}`).join("; ")}.
          </p>
        )}
      </Card>
      {left.next && <Meant visit={visit} text={left.next} />}
    </>
  );
}

/** How the client was since. */
function Reaction({ visit }: StepProps) {
  const { state, write } = visit;
  const [note, setNote] = useState(state.reaction?.note ?? "");
  const since = state.reaction?.since;
  return (
    <Card data-reaction>
      <h2>Since last time</h2>
      <Choice
        quiet
        label="Since last time it is"
        value={since}
        options={["better", "same", "worse"] as const}
        onChoose={(v) => write("reaction-noted", { since: v, ...(note ? { note } : {}) })}
      />
      {since && (
        <Text
          label="Soreness, how long, what else"
          value={note}
          onChange={setNote}
          onBlur={() => note !== (state.reaction?.note ?? "") && write("reaction-noted", { since, note })}
        />
      )}
    </Card>
  );
}

function List({ visit, points }: StepProps & { points: Left[] }) {
  const next = useContext(WhatNext);
  const today = (p: Left) => visit.state.points.some((x) => x.identity === p.identity);
  const names = useLeftWords(visit, points);
  const old = (p: Left) => next?.earlier.find((x) => x.identity === p.identity);
  return (
    <Points>
      {points.map((p) => {
        const again = old(p);
        return (
          <li key={p.point}>
            <span>
              <b>{names.get(p.point)}</b>
              {p.activity !== "none" && <span className="quiet"> · {p.activity}</span>}
              <br />
              <span className="quiet small">{p.holds.map(held).join("; ") || p.left_out}</span>
            </span>
            <span className="numbers" aria-label={`${one(p.nprs)} of 10 before, ${one(p.after_nprs)} after`}>
              {one(p.nprs)} <small>→</small> {one(p.after_nprs)}
            </span>
            {today(p) ? (
              <Said $tone="good">charted today</Said>
            ) : (
              again && <Button onPress={() => next?.again(again)}>Treat again</Button>
            )}
          </li>
        );
      })}
    </Points>
  );
}

const resultWords: Record<string, string> = { nothing: "nothing found", "not-reachable": "not reachable" };

/** "Graded stages, 1:12 with thumb pad, released". */
const held = (h: Schemas["HoldOutline"]) =>
  listed(
    sentence(plain(h.protocol)),
    clock(h.pressure_s) + (h.contact ? ` with ${plain(h.contact)}` : ""),
    h.result || h.outcome,
  );

/** What was meant to be done next. */
function Meant({ visit, text }: StepProps & { text: string }) {
  const { state, write } = visit;
  const note = state.note ?? "";
  return (
    <Card>
      <Stack>
        <h2>Meant for today</h2>
        <Said $lead>{text}</Said>
        <span>
          <Button
            isDisabled={note.includes(text)}
            onPress={() => write("note-written", { text: note ? `${note}\n${text}` : text })}
          >
            {note.includes(text) ? "In today's note" : "Into today's note"}
          </Button>
        </span>
      </Stack>
    </Card>
  );
}
