// The course of an own score, or of the painted area in the practice's unit.
import type { Schemas } from "../../api/client";
import { type Reading, type TimeAxis, TimeRow } from "../../charts/TimeRow";
import { areaIn, areaUnit, useWritten } from "../../parts/written";
import { Changed } from "./RowWords";

interface Props extends TimeAxis {
  s: Schemas["ScoreHistory"];
  treated: string[];
}

export function ScoreRow({ s, treated, ...shared }: Props) {
  const written = useWritten();
  const isArea = s.unit === "cm²";
  const by = isArea ? areaIn(1, written) : 1;
  const readings: Reading[] = s.visits.map((v) => ({ date: v.date, before: v.value * by }));
  const highest = Math.max(...s.visits.map((v) => v.value * by));
  return (
    <li data-score={s.measure}>
      <div className="what">
        <b>{s.name}</b>
        <Changed c={times(s.change, by)} what={isArea ? areaUnit(written) : "Score"} signals={{}} />
      </div>
      <TimeRow
        label={s.name}
        readings={readings}
        {...shared}
        min={0}
        max={isArea ? Math.ceil(highest / 50) * 50 : 10}
        unit={isArea ? ` ${areaUnit(written)}` : ""}
        treated={treated}
        color="var(--other)"
      />
    </li>
  );
}

/** A change in another unit. */
const times = (c: Schemas["Change"] | undefined, by: number): typeof c =>
  c && {
    ...c,
    delta: c.delta * by,
    threshold: { ...c.threshold, absolute: c.threshold.absolute && c.threshold.absolute * by },
    trend: c.trend && {
      ...c.trend,
      per_week: c.trend.per_week * by,
      low: c.trend.low * by,
      high: c.trend.high * by,
    },
  };
