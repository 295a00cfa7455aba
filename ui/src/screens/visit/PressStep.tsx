// What was charted, what was pressed, and the way into a hold.
import { useState } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { Button, Card, Text } from "../../parts/controls";
import { clock, count, one, plain, positionName, sentence } from "../../parts/words";
import { AskConsent } from "./Consent";
import { HoldChoices, missing, useHoldChoice } from "./HoldChoice";
import type { StepProps } from "./Visit";

const Item = styled(Card)<{ $on: boolean }>`
  display: grid;
  gap: 8px;
  padding: 14px 18px;
  border-color: ${(p) => (p.$on ? "var(--point)" : "var(--line-soft)")};
  .row {
    display: flex;
    gap: 12px;
    align-items: start;
  }
  .row > div {
    flex: 1;
  }
  .cautions {
    margin: 0;
    padding-left: 18px;
    color: var(--warn);
    font-size: 13.5px;
  }
`;

/** Why nothing is pressed here, and a licensed person's way past it. */
function Block({ visit, point, licensed }: StepProps & { point: Schemas["Point"]; licensed: boolean }) {
  const [reason, setReason] = useState<string>();
  const [error, setError] = useState("");
  return (
    <div
      style={{
        background: "var(--stop-soft)",
        color: "var(--stop)",
        borderRadius: 10,
        padding: "8px 12px",
        display: "grid",
        gap: 8,
      }}
      role="alert"
    >
      <b>{point.blocked}</b>
      {licensed && reason === undefined && (
        <Button onPress={() => setReason("")}>Press all the same, with a reason</Button>
      )}
      {reason !== undefined && (
        <form
          style={{ display: "grid", gap: 8 }}
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim().length < 10)
              setError("The clinical reason, in a sentence. It is recorded with your name.");
            else visit.write("block-overridden", { point: point.point, reason });
          }}
        >
          <Text
            label="Clinical reason"
            value={reason}
            onChange={(v) => {
              setReason(v);
              setError("");
            }}
            error={error}
          />
          <div style={{ display: "flex", gap: 8 }}>
            <Button type="submit" $kind="stop">
              Record the reason
            </Button>
            <Button onPress={() => setReason(undefined)}>Leave it blocked</Button>
          </div>
        </form>
      )}
    </div>
  );
}

interface PressProps extends StepProps {
  me: Schemas["Me"];
  selected?: string;
  setSelected: (id: string) => void;
  height: number;
}

export function PressStep(props: PressProps) {
  const { state } = props.visit;
  if (state.points.length === 0)
    return (
      <Card>
        <h2>Nothing charted yet</h2>
        <p className="quiet">
          Find and chart a point first; its muscle and its place set the limits of the hold.
        </p>
      </Card>
    );
  return state.points.map((p) => <AtPoint key={p.point} {...props} point={p} />);
}

/** One point: its limits, what is chosen, what was pressed, and its cautions. */
function AtPoint({
  visit,
  me,
  selected,
  setSelected,
  height,
  point: p,
}: PressProps & { point: Schemas["Point"] }) {
  const { state, core, write, preview, open } = visit;
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const { chosen, choose } = useHoldChoice({ visit }, p);
  const student = me.role === "student";
  const guide = core.palpate(p.muscle, p.side, height, p.site || undefined);
  const holds = state.holds.filter((h) => h.point === p.point && h.status !== "aside");
  const request = { protocol: "graded-stages", muscle: p.muscle, side: p.side };
  const { start } = core.begin(request, state.screening.limits, p.where);
  const l = start.limits;
  const lacks = missing(chosen, student, !!state.screening.limits.slack_or_broad);
  const open_ = !p.closed && !p.blocked;
  const begin = () => {
    const hold = uuidv7();
    const { contact, position, muscle_set, under } = chosen;
    const body = {
      hold,
      point: p.point,
      start,
      contact,
      position,
      ...(muscle_set ? { muscle_set } : {}),
      ...(student ? { under } : {}),
    };
    const why = preview("hold-started", body);
    setRefused(why);
    if (why) return;
    write("hold-started", body);
    go(`/visits/${open.visit.id}/hold/${hold}`);
  };
  return (
    <Item $on={selected === p.point} data-point={p.muscle}>
      <div className="row">
        <div>
          <h2>
            <button
              type="button"
              onClick={() => setSelected(p.point)}
              style={{ all: "unset", cursor: "pointer" }}
            >
              {guide.name}, {p.side}
            </button>
          </h2>
          <p className="quiet">
            {one(p.nprs)} of 10 when found · graded stages, target {l.target}, ceilings {l.soft_ceiling} /{" "}
            {l.hard_ceiling}, at most {Math.round(l.cap_ms / 1000)} s
          </p>
        </div>
        {p.closed ? (
          <b style={{ color: "var(--stop)", maxWidth: 240 }}>{p.closed}</b>
        ) : p.blocked ? null : (
          <Button $kind="main" style={{ minHeight: 48 }} isDisabled={!!lacks} onPress={begin}>
            {holds.length ? "Another hold" : "Begin the hold"}
          </Button>
        )}
      </div>
      {open_ && refused && (
        <p role="alert" style={{ color: "var(--stop)" }}>
          {refused}
        </p>
      )}
      {open_ && lacks && (
        <p className="quiet" role="status">
          {lacks}
        </p>
      )}
      {p.needs_consent && !p.closed && (
        <AskConsent visit={visit} area={p.needs_consent} why={p.blocked ?? ""} />
      )}
      {p.blocked && !p.needs_consent && !p.closed && (
        <Block
          visit={visit}
          point={p}
          licensed={licensed(me) && !state.screening.no_treatment && p.blocked.startsWith("Blocked")}
        />
      )}
      {start.lowered && <p className="quiet">{start.lowered}</p>}
      {open_ && <HoldChoices visit={visit} point={p} chosen={chosen} choose={choose} student={student} />}
      {holds.map((h) => (
        <Held key={h.id} hold={h} visit={visit} me={me} />
      ))}
      {holds.length >= 2 && (
        <p style={{ color: "var(--warn)" }}>Treated twice today: that is enough for this site.</p>
      )}
      <p>
        <b>On slight tension:</b>{" "}
        {guide.tension.map((t) => t.text ?? plain(t.movement.replace(".", " "))).join(", ")}. <b>In slack:</b>{" "}
        {guide.slack.map((t) => t.text ?? plain(t.movement.replace(".", " "))).join(", ")}.
      </p>
      <ul className="cautions">
        {guide.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
        {guide.near
          .filter((n) => n.distance_cm < 5)
          .map((n) => (
            <li key={n.structure}>
              {sentence(plain(n.structure))} {one(n.distance_cm)} cm away. {n.text}
            </li>
          ))}
      </ul>
    </Item>
  );
}

const licensed = (me: Schemas["Me"]) => me.role === "owner" || me.role === "therapist";

/** What a hold came to, and what is known beside it. */
function Held({ hold: h, visit, me }: StepProps & { hold: Schemas["Hold"]; me: Schemas["Me"] }) {
  const toSign = licensed(me) && h.under && !h.countersigned;
  const how = [
    h.contact && plain(h.contact),
    h.position && positionName(h.position),
    h.muscle_set && `on ${h.muscle_set}`,
  ].filter(Boolean);
  return (
    <div data-hold={h.status}>
      <p className="num">
        {sentence(h.summary.outcome)} · {clock(h.summary.pressure_s)} pressed ·{" "}
        {count(h.summary.stages.length, "stage")}
        {h.summary.stages.length > 0 &&
          ` (${h.summary.stages.map((s) => `${s.start_score}→${s.end_score}`).join(", ")})`}
        {h.status === "live" ? " · not finished" : ""}
        {how.length > 0 && <span className="quiet"> · {how.join(", ")}</span>}
      </p>
      {h.remarks.map((r) => (
        <p key={r} className="quiet" data-remark>
          {r}
        </p>
      ))}
      {toSign && (
        <Button onPress={() => visit.write("hold-countersigned", { hold: h.id })}>
          Countersign this hold
        </Button>
      )}
    </div>
  );
}
