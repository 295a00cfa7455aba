// Every version of a note, and what one changed of the one before it.
import { diffWordsWithSpace } from "diff";
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Choice, Disclosed } from "../../../parts/controls";
import { count, sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { type NoteText, noteParts } from "./parts";
import { dateFormat } from "../../../parts/dates";

const Diff = styled.div`
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  ins {
    background: var(--accent-soft);
    text-decoration-color: var(--accent);
  }
  del {
    background: var(--stop-soft);
  }
`;

interface Props extends StepProps {
  me: Schemas["Me"];
}

export function Versions({ visit: { state }, me }: Props) {
  const list: (NoteText & { at_ms: number })[] = [...state.drafts, ...(state.signed ? [state.signed] : [])];
  const [chosen, setChosen] = useState<number>();
  if (list.length < 2) return null;
  const at = chosen ?? list.length - 1;
  const [now, before] = [list[at], list[at - 1]];
  const written = dateFormat("en-GB", {
    timeZone: me.time_zone,
    timeStyle: "short",
    hour12: me.clock_hours === 12,
  });
  const name = (i: number) =>
    `${state.signed && i === list.length - 1 ? "signed" : `edit ${i + 1}`}, ${written.format(list[i]?.at_ms)}`;
  return (
    <Disclosed summary={count(list.length, "version")} data-versions>
      <Choice
        quiet
        label="Version"
        value={at}
        options={list.map((_, i) => i)}
        describe={name}
        onChoose={setChosen}
      />
      {now && !before && <p className="quiet">The first one that was edited.</p>}
      {now && before && <Changed now={now} before={before} />}
    </Disclosed>
  );
}

function Changed({ now, before }: { now: NoteText; before: NoteText }) {
  const parts = noteParts.filter((p) => now[p] !== before[p]);
  if (parts.length === 0) return <p className="quiet">Word for word like the one before.</p>;
  return parts.map((p) => (
    <Diff key={p}>
      <h3>{sentence(p)}</h3>
      {diffWordsWithSpace(before[p], now[p]).map((x, i) =>
        x.added ? (
          <ins key={i}>{x.value}</ins>
        ) : x.removed ? (
          <del key={i}>{x.value}</del>
        ) : (
          <span key={i}>{x.value}</span>
        ),
      )}
    </Diff>
  ));
}
