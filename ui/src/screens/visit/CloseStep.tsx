import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, Card, Text } from "../../parts/controls";
import { clock, count, day, deg, movementName, one, plain, sentence } from "../../parts/words";
import type { StepProps } from "./Visit";

/** After a visit is closed its note stands, and more is added beside it. */
function Closed({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const { state, write, open } = visit;
  const [text, setText] = useState("");
  const name = (id: string) => open.team.find((m) => m.id === id)?.name ?? "a former colleague";
  return (
    <div data-addenda style={{ display: "grid", gap: 10 }}>
      {state.note && <p style={{ whiteSpace: "pre-wrap" }}>{state.note}</p>}
      {state.addenda.map((a) => (
        <p key={a.at_ms + a.text} style={{ whiteSpace: "pre-wrap" }}>
          <span className="quiet">
            Added by {name(a.author)}, {day(new Date(a.at_ms).toISOString(), me.time_zone)}:
          </span>{" "}
          {a.text}
        </p>
      ))}
      <Text label="Addendum" long value={text} onChange={setText} />
      <Button
        style={{ justifySelf: "start" }}
        isDisabled={!text.trim()}
        onPress={() => {
          write("addendum-written", { text: text.trim() });
          setText("");
        }}
      >
        Add it
      </Button>
    </div>
  );
}

export function CloseStep({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const { state, write, open, core } = visit;
  const gauges = useMemo(() => new Map(core.gauges().map((g) => [g.id, g])), [core]);
  const [note, setNote] = useState(state.note ?? "");
  return (
    <Card>
      <h2>What was done</h2>
      {state.points.length + state.ranges.length + state.gauges.length === 0 && (
        <p className="quiet" style={{ marginTop: 6 }}>
          Nothing has been measured, charted or pressed in this visit.
        </p>
      )}
      <ul style={{ paddingLeft: 20 }}>
        {state.points.map((p) => {
          const holds = state.holds.filter((h) => h.point === p.point && h.status !== "aside");
          return (
            <li key={p.point}>
              {sentence(plain(p.muscle))}, {p.side}: {one(p.nprs)} → {one(p.after_nprs)} of 10
              {holds.map(
                (h) =>
                  `; ${clock(h.summary.pressure_s)} pressed in ${count(h.summary.stages.length, "stage")}, ${h.summary.outcome}`,
              )}
            </li>
          );
        })}
        {state.ranges.map((r) => (
          <li key={r.movement + r.side}>
            {movementName(r.movement)}
            {r.side === "midline" ? "" : `, ${r.side}`}: {deg(r.before)} → {deg(r.after)}
            {r.change ? `, ${r.change.text}` : ""}
          </li>
        ))}
        {state.gauges
          .filter((g) => g.before !== undefined)
          .map((g) => {
            const info = gauges.get(g.gauge);
            return (
              <li key={g.gauge + g.side}>
                {info?.name}
                {g.side === "midline" ? "" : `, ${g.side}`}: {one(g.before)} → {one(g.after)} {info?.unit}
              </li>
            );
          })}
      </ul>
      <div style={{ display: "grid", gap: 12, marginTop: 14 }}>
        {state.closed_ms ? (
          <Closed visit={visit} me={me} />
        ) : (
          <Text
            label="Note"
            long
            value={note}
            onChange={setNote}
            onBlur={() => note !== (state.note ?? "") && write("note-written", { text: note })}
          />
        )}
        <p className="quiet">
          Aftercare to say: soreness for a day or two is usual; water, easy movement. Call if it lasts past 48
          h, bruises, or anything feels numb or weak. ({me.practice})
        </p>
        <div style={{ display: "flex", gap: 10, alignItems: "center" }}>
          {state.closed_ms ? (
            <b style={{ color: "var(--good)" }}>This visit is closed.</b>
          ) : (
            <Button $kind="main" onPress={() => write("visit-closed", {})}>
              Close the visit
            </Button>
          )}
          <Link to={`/clients/${open.client.id}/progress`}>See progress</Link>
        </div>
      </div>
    </Card>
  );
}
