// Squat and toe-touch: signs touched on the figure or chosen here, and the
// measures that go with them.
import { useMemo } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { scaleOf, type View } from "../../body/BodySvg";
import type { Core } from "../../core/core";
import type { LiveVisit } from "../../core/useVisit";
import { Card, Choice, Choices, Num } from "../../parts/controls";
import { one, sentence } from "../../parts/words";
import type { StepProps } from "./Visit";

type Spot = Schemas["SignSpot"];

const seenAt = (state: Schemas["State"], s: Spot) =>
  s.sign
    ? state.signs.some((x) => x.sign === s.sign && (x.side === s.side || x.side === "midline"))
    : state.posture.some(
        (p) =>
          p.measure === s.measure &&
          (s.measure === "lumbar-curve" ? p.kind === "hinge" : p.high_side === s.side),
      );

/** Sets or takes back a sign; a sign without a side of its own becomes two. */
export function toggleSign({ state, write, core }: LiveVisit, s: Spot) {
  const now = seenAt(state, s);
  if (!s.sign) {
    // A toe-touch sign is a posture reading; straight and even takes it back.
    if (s.measure === "lumbar-curve")
      write("posture-read", { measure: s.measure, kind: now ? "even" : "hinge" });
    else write("posture-read", { measure: s.measure, ...(now ? {} : { high_side: s.side }) });
    return;
  }
  const both = state.signs.find((x) => x.sign === s.sign && x.side === "midline");
  if (both && s.side !== "midline") {
    write("sign-seen", { sign: s.sign, side: "midline", present: false });
    const other = core.signs().find((x) => x.sign === s.sign && x.side !== s.side);
    if (other) write("sign-seen", { sign: s.sign, side: other.side, present: true });
    return;
  }
  write("sign-seen", { sign: s.sign, side: s.side, present: !now });
}

/** The spot under a touch, if one is near enough for a fingertip. */
export function spotAt(core: Core, view: View, p: { x: number; y: number }) {
  const near = core
    .signs()
    .filter((s) => s.view === view)
    .map((s) => ({ s, d: Math.hypot(s.x - p.x, s.y - p.y) }))
    .sort((a, b) => a.d - b.d)[0];
  return near && near.d <= 30 ? near.s : undefined;
}

/** The places on the figure: a hollow lozenge where a sign can be touched, full
 * and named where it was seen. */
export function SignSpots({ core, view, state }: { core: Core; view: View; state: Schemas["State"] }) {
  const spots = useMemo(() => core.signs().filter((s) => s.view === view), [core, view]);
  const k = scaleOf(view);
  return (
    <g aria-hidden>
      {spots.map((s) => {
        const seen = seenAt(state, s);
        const r = (seen ? 14 : 11) * k;
        return (
          <g
            key={s.name + s.side}
            transform={`translate(${s.x} ${s.y})`}
            data-spot={`${s.sign ?? s.measure}:${s.side}`}
            data-seen={seen}
          >
            <title>{s.name}</title>
            <path
              d={`M0,${-r}L${r},0L0,${r}L${-r},0Z`}
              fill={seen ? "var(--other)" : "var(--card)"}
              fillOpacity={seen ? 1 : 0.75}
              stroke="var(--other)"
              strokeWidth={2 * k}
            />
            {seen && (
              <path
                d={`M${-4.6 * k},0L${-1.2 * k},${3.8 * k}L${5.2 * k},${-3.8 * k}`}
                fill="none"
                stroke="var(--card)"
                strokeWidth={2.2 * k}
                strokeLinecap="round"
                strokeLinejoin="round"
              />
            )}
          </g>
        );
      })}
    </g>
  );
}

const List = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(256px, 1fr));
  gap: 0 26px;
  > div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    padding: 3px 0;
    border-top: 1px solid var(--line-soft);
  }
`;

export function SignsCard({ visit }: StepProps) {
  const { core, state } = visit;
  const spots = useMemo(() => core.signs(), [core]);
  const rows = [...new Set(spots.map((s) => s.name))].map((name) => ({
    name,
    of: spots.filter((s) => s.name === name),
  }));
  const part = (title: string, list: typeof rows) => (
    <>
      <h3>{title}</h3>
      <List>
        {list.map((r) => {
          const sides = r.of.map((s) => s.side as string).sort();
          const on = r.of.filter((s) => seenAt(state, s)).map((s) => s.side as string);
          return (
            <div key={r.name} data-sign={r.of[0]?.sign ?? r.of[0]?.measure}>
              <span>{r.name}</span>
              <Choices
                quiet
                label={r.name}
                values={on}
                options={sides}
                describe={(s) => (s === "midline" ? "seen" : s)}
                onChange={(next) => {
                  const s = r.of.find((x) => on.includes(x.side) !== next.includes(x.side));
                  if (s) toggleSign(visit, s);
                }}
              />
            </div>
          );
        })}
      </List>
    </>
  );
  return (
    <Card style={{ display: "grid", gap: 8 }}>
      <h2>Seen in squat and toe-touch</h2>
      <p className="quiet">Touch the lozenge on the body where you see it, or choose here.</p>
      {part(
        "Squat",
        rows.filter((r) => r.of[0]?.sign),
      )}
      {part(
        "Toe-touch",
        rows.filter((r) => !r.of[0]?.sign),
      )}
    </Card>
  );
}

/** Toe-touch, lunge, leg raise and breath; after treatment those taken before. */
export function GaugesCard({ visit, moment }: StepProps & { moment: "before" | "after" }) {
  const { core, state, open, write } = visit;
  const list = useMemo(() => core.gauges(), [core]);
  const of = (gauge: string, side: string) => state.gauges.find((g) => g.gauge === gauge && g.side === side);
  const shown = list.filter(
    (g) =>
      moment === "before" || state.gauges.some((x) => x.gauge === g.id && (x.before !== undefined || x.kind)),
  );
  if (shown.length === 0) return null;
  const sideName = (s: string) => (s === "midline" ? "" : sentence(s));
  return (
    <Card style={{ display: "grid", gap: 12 }} data-gauges={moment}>
      <h2>{moment === "before" ? "Reach, lunge, leg and breath" : "Reach, lunge, leg and breath again"}</h2>
      {shown.map((g) => {
        const read = (side: string) => of(g.id, side);
        const last = open.earlier_gauges
          .filter((x) => x.gauge === g.id && x.before !== undefined)
          .map((x) => `${x.side === "midline" ? "" : `${x.side} `}${one(x.before)}`)
          .join(", ");
        const flags = g.sides.flatMap((s) =>
          read(s)?.flag ? [`${s === "midline" ? "" : `${s}: `}${read(s)?.flag}`] : [],
        );
        return (
          <div
            key={g.id}
            data-gauge={g.id}
            style={{
              display: "grid",
              gridTemplateColumns: "minmax(0, 1fr) auto",
              gap: "2px 14px",
              alignItems: "end",
            }}
          >
            <span>
              <b>{g.name}</b>
              {g.usual ? <span className="quiet"> · usual {g.usual}</span> : ""}
              <br />
              <span className="quiet" style={{ fontSize: 13.5 }}>
                {g.how}
                {last ? ` Last time ${last} ${g.unit}.` : ""}
              </span>
            </span>
            {g.unit ? (
              <span
                style={{ display: "grid", gridTemplateColumns: `repeat(${g.sides.length}, 92px)`, gap: 8 }}
              >
                {g.sides.map((s) => (
                  <Num
                    key={s}
                    label={sideName(s) || "Distance"}
                    unit={g.unit}
                    value={moment === "before" ? read(s)?.before : read(s)?.after}
                    min={g.min}
                    max={g.max}
                    step={1}
                    onCommit={(value) =>
                      value !== undefined &&
                      value !== (moment === "before" ? read(s)?.before : read(s)?.after) &&
                      write("gauge-read", { gauge: g.id, side: s, value, moment })
                    }
                  />
                ))}
              </span>
            ) : (
              <Choice
                quiet
                label={g.name}
                value={
                  moment === "before"
                    ? read("midline")?.kind || undefined
                    : read("midline")?.after_kind || undefined
                }
                options={["diaphragmatic", "apical"]}
                describe={(k) => (k === "apical" ? "chest first" : "belly first")}
                onChoose={(kind) => write("gauge-read", { gauge: g.id, side: "midline", kind, moment })}
              />
            )}
            {moment === "before" && flags.length > 0 && (
              <p style={{ gridColumn: "1 / -1", color: "var(--warn)", fontSize: 13.5 }}>
                {flags.join(" · ")} ({g.source})
              </p>
            )}
            {moment === "after" &&
              g.sides.map((s) => {
                const r = read(s);
                return r?.before === undefined || r.after === undefined ? null : (
                  <p key={s} className="quiet num" style={{ gridColumn: "1 / -1", fontSize: 13.5 }}>
                    {s === "midline" ? "" : `${s}: `}
                    {one(r.before)} → {one(r.after)} {g.unit}
                  </p>
                );
              })}
          </div>
        );
      })}
      {moment === "before" && (
        <div
          style={{
            display: "grid",
            gridTemplateColumns: "minmax(0, 1fr) auto",
            gap: 12,
            alignItems: "center",
          }}
          data-gauge="first-rib-rise"
        >
          <span>
            <b>First rib on breathing in</b>
            <br />
            <span className="quiet" style={{ fontSize: 13.5 }}>
              {core.tests().find((t) => t.id === "first-rib-rise")?.how}
            </span>
          </span>
          <span style={{ display: "grid", gap: 6 }}>
            {["left", "right"].map((side) => {
              const r = state.tests.find((t) => t.test === "first-rib-rise" && t.side === side)?.result;
              return (
                <span
                  key={side}
                  style={{ display: "flex", gap: 8, alignItems: "center", justifyContent: "flex-end" }}
                >
                  <span className="quiet">{side}</span>
                  <Choice
                    quiet
                    label={`First rib, ${side}`}
                    value={r === "negative" ? "rises" : r === "positive" ? "stays" : undefined}
                    options={["rises", "stays"] as const}
                    onChoose={(x) =>
                      write("test-done", {
                        test: "first-rib-rise",
                        side,
                        result: x === "stays" ? "positive" : "negative",
                      })
                    }
                  />
                </span>
              );
            })}
          </span>
        </div>
      )}
    </Card>
  );
}
