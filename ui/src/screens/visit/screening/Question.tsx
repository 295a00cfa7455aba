// One question with its answer, and where a yes holds.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Choice, Choices, Text } from "../../../parts/controls";
import { Day } from "../../../parts/fields";
import { Columns, Said } from "../../../parts/layout";
import { plain } from "../../../parts/words";
import type { Answer, Answers } from "./useAnswers";

const whole = /^\d{4}-\d{2}-\d{2}$/;

const Line = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: center;
  padding: 7px 0;
  border-top: 1px solid var(--line-soft);
  &:first-child {
    border-top: 0;
  }
  .where {
    grid-column: 1 / -1;
    display: grid;
    gap: 8px;
    padding: 2px 0 6px;
  }
  &[data-missing="true"] > span {
    font-weight: 560;
  }
  small {
    color: var(--ink-soft);
  }
  small.before {
    color: var(--warn);
    font-weight: 600;
  }
`;

interface Props {
  q: Schemas["Question"];
  answers: Answers;
  /** A touch on the body says where. */
  placing: boolean;
  setPlacing: (on: boolean) => void;
}

export function Question({ q, answers, placing, setPlacing }: Props) {
  const shown = answers.shown(q.id);
  const asBefore = shown !== undefined && !answers.own(q.id);
  const before = answers.singly(q.id) ? answers.base(q.id)?.answer : undefined;
  return (
    <Line data-missing={answers.missing(q.id)} data-question={q.id}>
      <span>
        {q.ask}
        {asBefore && <small> As before.</small>}
        {before && (
          <small className="before">
            {" "}
            {before === "yes" ? "Yes last time" : "Not known last time"}: ask again.
          </small>
        )}
      </span>
      <Choice
        quiet
        label={q.ask}
        value={shown}
        options={["yes", "no", "unknown"] as const}
        describe={(x) => (x === "unknown" ? "?" : x)}
        onChoose={(answer) => {
          // At once it was a slip; the core lets it count for five minutes.
          const slip = answer === "no" && (answers.own(q.id)?.answer ?? "no") !== "no";
          answers.give([{ question: q.id, answer, ...(slip && { corrects: "Touched by mistake." }) }]);
          if (answer === "yes" && q.where === "regions") setPlacing(true);
        }}
      />
      {shown !== undefined && shown !== "no" && (
        <Yes q={q} answers={answers} placing={placing} setPlacing={setPlacing} />
      )}
    </Line>
  );
}

/** What a yes means, where it holds, since when. */
function Yes({ q, answers, placing, setPlacing }: Props) {
  const base = answers.base(q.id);
  const own = answers.own(q.id);
  const more = (over: Partial<Answer>) => answers.more(q.id, over);
  const regions = base?.regions ?? [];
  return (
    <div className="where">
      <Said $tone="warn">{q.text}</Said>
      {q.where !== "nowhere" && (
        <Choice
          label="Which side"
          value={base?.side || "midline"}
          options={["left", "right", "midline"] as const}
          describe={(s) => (s === "midline" ? "both" : s)}
          onChoose={(side) => more({ side })}
        />
      )}
      {regions.length > 0 && (
        <Choices
          label="Where; touch one to take it off"
          values={regions}
          options={regions}
          describe={plain}
          onChange={(left) => more({ regions: left })}
        />
      )}
      {q.where === "regions" && (
        <Button
          $kind={placing ? "main" : "plain"}
          aria-pressed={placing}
          onPress={() => setPlacing(!placing)}
        >
          {placing ? "Touch the body where it is" : "Show where on the body"}
        </Button>
      )}
      {q.day && (
        <Day
          label={q.day === "due" ? "Due on" : "When it happened"}
          name={q.id}
          value={(q.day === "due" ? own?.due_on : own?.happened_on) ?? ""}
          onChange={(v) => whole.test(v) && more(q.day === "due" ? { due_on: v } : { happened_on: v })}
        />
      )}
      <Detail since={own?.since} note={own?.note} onKeep={more} />
    </div>
  );
}

/** Since when, and what else was said; kept when the field is left. */
function Detail({
  since = "",
  note = "",
  onKeep,
}: {
  since?: string;
  note?: string;
  onKeep: (over: Partial<Answer>) => void;
}) {
  const [draft, setDraft] = useState({ since, note });
  const leave = (k: "since" | "note") => () => draft[k] !== { since, note }[k] && onKeep({ [k]: draft[k] });
  return (
    <Columns $cols="1fr 2fr">
      <Text
        label="Since when"
        value={draft.since}
        maxLength={100}
        onChange={(v) => setDraft({ ...draft, since: v })}
        onBlur={leave("since")}
      />
      <Text
        label="Note"
        value={draft.note}
        maxLength={2000}
        onChange={(v) => setDraft({ ...draft, note: v })}
        onBlur={leave("note")}
      />
    </Columns>
  );
}
