// Across visits: what changed since the first, what since the last.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { CourseChart } from "../../charts/Course";
import { Card } from "../../parts/controls";
import { Said } from "../../parts/layout";
import { count, movementName } from "../../parts/words";
import { type More, Older } from "../client/Older";
import { rangeSignals, sumUp, verdict } from "./verdict";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 16px;
  align-items: start;
`;
const Verdict = styled.p<{ $d?: string }>`
  font-weight: 560;
  font-size: var(--t1);
  margin: 0;
  color: ${(p) => (p.$d === "better" ? "var(--good)" : p.$d === "worse" ? "var(--stop)" : "var(--ink-soft)")};
`;

const Site = styled.span`
  display: block;
  font: 400 var(--t1)/1.4 var(--text);
  color: var(--ink-soft);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
`;

interface Props {
  history: Schemas["History"];
  /** How many visits there were in all. */
  visits: number;
  more?: More;
}

export function Progress({ history, visits, more }: Props) {
  const movements = [...new Set(history.ranges.map((r) => r.movement))];
  const longest = Math.max(60, ...history.points.flatMap((p) => p.visits.map((v) => v.seconds)));
  return (
    <>
      <Said $lead data-summary>
        {sumUp(history)} <span className="quiet">{count(visits, "visit")}.</span>
      </Said>
      {more && <Older {...more} />}
      {history.points.length > 0 && <h2>Points: number at test pressure, 0–10</h2>}
      <Grid>
        {history.points.map((p) => (
          <PointCard key={p.identity} p={p} longest={longest} />
        ))}
      </Grid>
      {movements.length > 0 && <h2>Range, degrees</h2>}
      <Grid>
        {movements.map((m) => (
          <RangeCard key={m} movement={m} ranges={history.ranges.filter((r) => r.movement === m)} />
        ))}
      </Grid>
    </>
  );
}

function PointCard({ p, longest }: { p: Schemas["PointHistory"]; longest: number }) {
  const v = verdict(p.number, "Number");
  return (
    <Card data-point={p.muscle}>
      <h3>
        {p.name}, {p.side} <Site>{p.site || "own site"}</Site>
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
        main={{
          color: "var(--point)",
          steps: p.visits.map((x) => ({
            date: x.date,
            before: x.before,
            after: x.after,
            note: x.parts ? `${x.parts} parts` : undefined,
          })),
        }}
        bars={{ values: p.visits.map((x) => x.seconds), max: longest }}
      />
      <Said className="quiet" $small>
        Hollow: when found. Filled: at the recheck. Below: seconds pressed, parts of the holds. Tenderness
        grade {p.visits.map((x) => x.grade).join(" → ")}.
      </Said>
    </Card>
  );
}

const sideName = { midline: "Change", left: "Left", right: "Right" };

function RangeCard({ movement, ranges }: { movement: string; ranges: Schemas["RangeHistory"][] }) {
  const of = (side: string) => ranges.find((r) => r.side === side);
  const l = of("left") ?? of("midline");
  const r = of("right");
  const main = l ?? r;
  if (!main) return null;
  const { top, ticks } = scaleOf(main.reference, [...main.visits, ...(r?.visits ?? [])]);
  return (
    <Card data-movement={movement}>
      <h3>{movementName(movement)}</h3>
      {[l, r].map((x) => {
        if (!x) return null;
        const v = verdict(x.change, sideName[x.side], rangeSignals);
        return (
          <Verdict key={x.side} $d={v.d} title={v.title}>
            {v.text}
          </Verdict>
        );
      })}
      <CourseChart
        label={movementName(movement)}
        min={0}
        max={top}
        ticks={ticks}
        unit="°"
        band={[main.flag_below, main.reference]}
        main={{
          color: l ? "var(--left)" : "var(--right)",
          name: main.side === "midline" ? undefined : main.side,
          steps: main.visits,
        }}
        second={l && r ? { steps: r.visits, color: "var(--right)", name: "right" } : undefined}
      />
    </Card>
  );
}

/** A scale that holds the usual range and every reading, with round ticks. */
function scaleOf(reference: number, visits: Schemas["RangeVisit"][]) {
  const highest = Math.max(reference, ...visits.flatMap((v) => [v.before ?? 0, v.after ?? 0]));
  const top = Math.ceil((highest * 1.15) / 5) * 5;
  const step = top > 60 ? 40 : top > 30 ? 20 : 10;
  return { top, ticks: Array.from({ length: Math.floor(top / step) + 1 }, (_, i) => i * step) };
}
