// The course of an own score, or of the painted area in the practice's unit.
import type { Schemas } from "../../api/client";
import { type Reading, type TimeAxis, TimeRow } from "../../charts/TimeRow";
import { areaIn, areaUnit, useUnitPreferences } from "../../parts/unitPreferences";
import { Changed } from "./RowWords";

interface Props extends TimeAxis {
  s: Schemas["ScoreHistory"];
  treated: string[];
}

export function ScoreRow({ s, treated, ...shared }: Props) {
  const written = useUnitPreferences();
  const isArea = s.unit === "cm²";
  const by = isArea ? areaIn(1, written) : 1;
  const readings: Reading[] = s.visits.map((v) => ({ date: v.date, before: v.value * by }));
  const highest = Math.max(...s.visits.map((v) => v.value * by));
  return (
    <li data-score={s.measure}>
      <div className="what">
        <b>{s.name}</b>
        <Changed
          c={isArea ? inUnit(s.change, by, areaUnit(written)) : s.change}
          what={isArea ? "Area" : "Score"}
          signals={{}}
        />
      </div>
      <TimeRow
        label={s.name}
        readings={readings}
        {...shared}
        min={0}
        max={isArea ? topOf(highest) : 10}
        unit={isArea ? ` ${areaUnit(written)}` : ""}
        treated={treated}
        color="var(--other)"
      />
    </li>
  );
}

/** The scale ends at a round number above all. */
function topOf(highest: number) {
  const step = highest > 50 ? 50 : 10;
  return Math.max(step, Math.ceil(highest / step) * step);
}

/** A change in another unit. */
const inUnit = (c: Schemas["Change"] | undefined, by: number, unit: string): typeof c =>
  c && {
    ...c,
    unit,
    delta: c.delta * by,
    threshold: { ...c.threshold, absolute: c.threshold.absolute && c.threshold.absolute * by },
    trend: c.trend && {
      ...c.trend,
      per_week: c.trend.per_week * by,
      low: c.trend.low * by,
      high: c.trend.high * by,
    },
  };
