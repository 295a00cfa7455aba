// Across visits: what changed since the first, what since the last.
import { styled } from "styled-components";
import type { Schemas } from "../api/client";
import { CourseChart } from "../charts/Course";
import { Card } from "../parts/controls";
import { movementName } from "../parts/words";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 16px;
  align-items: start;
`;
const Verdict = styled.p<{ $d?: string }>`
  font-weight: 560;
  font-size: 14px;
  margin: 2px 0 6px;
  color: ${(p) => (p.$d === "better" ? "var(--good)" : p.$d === "worse" ? "var(--stop)" : "var(--ink-soft)")};
`;

const signals: Record<string, string> = {
  improving: "improving",
  plateau: "plateau: trace back, change the protocol, or refer",
  worse: "worse twice: stop this approach, screen again",
  resolved: "low on two visits: space out",
  "too-few": "",
};

/** A side that is simply fine stands still too, so a range shows no plateau. */
const rangeSignals = { worse: "worse twice: screen again" };

function verdict(c: Schemas["Change"] | undefined, what: string, shown: Record<string, string> = signals) {
  if (!c) return { text: "One reading so far: nothing to compare.", d: undefined };
  const amount = Math.abs(Math.round(c.delta * 10) / 10);
  const delta = `${c.delta > 0 ? "+" : c.delta < 0 ? "−" : ""}${amount}${c.unit === "°" ? "°" : ""}`;
  const size = [
    c.threshold.absolute !== undefined && `${c.threshold.absolute}${c.unit === "°" ? "°" : ""}`,
    c.threshold.percent !== undefined && `${c.threshold.percent} %`,
  ]
    .filter(Boolean)
    .join(" or ");
  return {
    text: `${what} ${delta}: ${c.text}${shown[c.signal ?? ""] ? ` · ${shown[c.signal ?? ""]}` : ""}`,
    d: c.direction,
    title: `A real change is ${size} (${c.source}).`,
  };
}

/** One line on what changed since the first visit and since the last one. */
function sumUp(h: Schemas["History"]): string {
  const better = h.points.filter((p) => p.number?.direction === "better").length;
  const worse = h.points.filter((p) => p.number?.direction === "worse").length;
  const range = h.ranges.filter((r) => r.change?.direction === "better").length;
  const last = h.points.filter((p) => p.since_last?.direction === "better").length;
  const n = h.points.length;
  if (n === 0 && h.ranges.length === 0) return "Nothing charted yet.";
  return `Since the first visit ${better} of ${n} points are clearly better${worse ? `, ${worse} worse` : ""}, and ${range} of ${h.ranges.length} movements have clearly gained. Since the last visit ${last} of ${n} points changed clearly.`;
}

export function Progress({
  history,
  visits,
  zone: _zone,
}: {
  history: Schemas["History"];
  visits: Schemas["Visit"][];
  zone: string;
}) {
  const movements = [...new Set(history.ranges.map((r) => r.movement))];
  const longest = Math.max(60, ...history.points.flatMap((p) => p.visits.map((v) => v.seconds)));
  return (
    <>
      <p style={{ fontFamily: "var(--serif)", fontSize: 17 }} data-summary>
        {sumUp(history)} <span className="quiet">{visits.filter((v) => v.opened_at).length} visits.</span>
      </p>
      {history.points.length > 0 && <h2>Points: number at test pressure, 0–10</h2>}
      <Grid>
        {history.points.map((p) => {
          const v = verdict(p.number, "Number");
          return (
            <Card key={p.identity} data-point={p.muscle} style={{ padding: "14px 16px" }}>
              <h3>
                {p.name}, {p.side}{" "}
                <span
                  className="quiet"
                  style={{
                    display: "block",
                    fontWeight: 400,
                    fontFamily: "var(--text)",
                    fontSize: 13,
                    whiteSpace: "nowrap",
                    overflow: "hidden",
                    textOverflow: "ellipsis",
                  }}
                >
                  {p.site || "own site"}
                </span>
              </h3>
              <Verdict $d={v.d} title={v.title}>
                {v.text}
              </Verdict>
              <CourseChart
                label={`${p.name}, ${p.side}`}
                min={0}
                max={10}
                ticks={[0, 5, 10]}
                unit=""
                color="var(--point)"
                steps={p.visits.map((x) => ({
                  date: x.date,
                  before: x.before,
                  after: x.after,
                  note: x.stages ? `${x.stages} st` : undefined,
                }))}
                bars={{ values: p.visits.map((x) => x.seconds), max: longest, name: "seconds pressed" }}
              />
              <p className="quiet" style={{ fontSize: 12.5 }}>
                Hollow: when found. Filled: at the recheck. Below: seconds pressed, stages. Tenderness grade{" "}
                {p.visits.map((x) => x.grade).join(" → ")}.
              </p>
            </Card>
          );
        })}
      </Grid>
      {movements.length > 0 && <h2>Range, degrees</h2>}
      <Grid>
        {movements.map((m) => {
          const of = (side: string) => history.ranges.find((r) => r.movement === m && r.side === side);
          const l = of("left") ?? of("midline");
          const r = of("right");
          const main = l ?? r;
          if (!main) return null;
          const top =
            Math.ceil(
              (Math.max(
                main.reference,
                ...[...main.visits, ...(r?.visits ?? [])].flatMap((v) => [v.before ?? 0, v.after ?? 0]),
              ) *
                1.15) /
                5,
            ) * 5;
          const step = top > 60 ? 40 : top > 30 ? 20 : 10;
          const ticks = Array.from({ length: Math.floor(top / step) + 1 }, (_, i) => i * step);
          return (
            <Card key={m} data-movement={m} style={{ padding: "14px 16px" }}>
              <h3>{movementName(m)}</h3>
              {[l, r].map((x) => {
                if (!x) return null;
                const v = verdict(
                  x.change,
                  x.side === "midline" ? "Change" : x.side === "left" ? "Left" : "Right",
                  rangeSignals,
                );
                return (
                  <Verdict key={x.side} $d={v.d} title={v.title} style={{ margin: 0 }}>
                    {v.text}
                  </Verdict>
                );
              })}
              <CourseChart
                label={movementName(m)}
                min={0}
                max={top}
                ticks={ticks}
                unit="°"
                band={[main.flag_below, main.reference]}
                color={l ? "var(--left)" : "var(--right)"}
                name={main.side === "midline" ? undefined : main.side}
                steps={main.visits}
                second={l && r ? { steps: r.visits, color: "var(--right)", name: "right" } : undefined}
              />
            </Card>
          );
        })}
      </Grid>
    </>
  );
}
