// One course on a time axis that it shares with the rows above and below: before
// hollow, after filled, the usual range as a band, treatments as ticks. Hundreds of
// readings are a few paths.
import { createContext, useContext } from "react";
import { styled } from "styled-components";
import { one } from "../parts/words";

const high = 88;
const top = 10;
const floor = 76;
/** Room for the scale and for the last number. */
export const margins = { left: 30, right: 56 };
const { left, right } = margins;

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: ${high}px;
  overflow: visible;
  text {
    font: 500 11px var(--text);
    fill: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
  .end {
    font-weight: 650;
    fill: var(--ink);
  }
  .frame {
    fill: none;
    stroke: var(--line-soft);
  }
  .band {
    fill: var(--accent-soft);
  }
  .treated {
    fill: none;
    stroke: var(--ink-soft);
  }
  .second {
    fill: none;
    stroke: var(--right);
    stroke-width: 1.6;
    opacity: 0.75;
  }
  .line {
    fill: none;
    stroke-width: 2;
    stroke-linejoin: round;
  }
  .fell {
    fill: none;
    stroke-width: 4;
    opacity: 0.2;
  }
  .before {
    fill: var(--card);
    stroke-width: 1.8;
  }
  .looked-at {
    stroke: var(--accent);
    stroke-dasharray: 3 3;
    stroke-width: 1.4;
  }
`;

export interface Reading {
  date: string;
  before?: number;
  after?: number;
}

/** What rows below each other share. */
export interface TimeAxis {
  /** In pixels: what is drawn is as large as it is written. */
  width: number;
  /** Where a date lies, 0 to 1. */
  x: (date: string) => number;
}

interface Props extends TimeAxis {
  label: string;
  readings: Reading[];
  /** A second side, drawn thinner. */
  second?: Reading[];
  min: number;
  max: number;
  band?: [number, number];
  unit: string;
  /** Days on which something was pressed. */
  treated: string[];
  color?: string;
}

/** The date that is looked at: all that changes while one goes through the visits. */
export const LookedAt = createContext("");

export function TimeRow({ label, readings, second, width, x, min, max, band, unit, treated, color }: Props) {
  const across = (date: string) => left + 8 + x(date) * (width - left - right - 16);
  const up = (v: number) => floor - ((Math.min(max, Math.max(min, v)) - min) / (max - min)) * (floor - top);
  const at = (list: Reading[], of: "before" | "after") =>
    list.flatMap((r): At[] => {
      const v = r[of];
      return v === undefined ? [] : [[across(r.date), up(v)]];
    });
  const stroke = color ?? "var(--point)";
  const before = at(readings, "before");
  const fell = readings.filter((r) => r.before !== undefined && r.after !== undefined);
  const end = readings.findLast((r) => r.before !== undefined);
  return (
    <Svg viewBox={`0 0 ${width} ${high}`} role="img" aria-label={`${label}: ${said(readings, unit)}`}>
      {band && (
        <rect
          className="band"
          x={left}
          width={width - left - right}
          y={up(band[1])}
          height={Math.max(0, up(band[0]) - up(band[1]))}
        />
      )}
      <path className="frame" d={`M${left} ${floor}H${width - right}M${left} ${top}H${width - right}`} />
      <text x={left - 6} y={floor + 4} textAnchor="end">
        {one(min)}
      </text>
      <text x={left - 6} y={top + 4} textAnchor="end">
        {one(max)}
      </text>
      <path className="treated" d={treated.map((d) => `M${across(d)} ${floor}v7`).join("")} />
      <Line across={across} />
      {second && <path className="second" d={lineOf(at(second, "before"))} />}
      <path className="line" stroke={stroke} d={lineOf(before)} />
      <path
        className="fell"
        stroke={stroke}
        d={fell.map((r) => `M${across(r.date)} ${up(r.before ?? 0)}V${up(r.after ?? 0)}`).join("")}
      />
      <path className="before" stroke={stroke} d={dotsOf(before, 3.8)} />
      <path className="after" fill={stroke} d={dotsOf(at(readings, "after"), 3)} />
      {end && (
        <text className="end" x={across(end.date) + 9} y={up(end.before ?? 0) + 4}>
          {one(end.before)}
          {unit}
        </text>
      )}
    </Svg>
  );
}

type At = [x: number, y: number];

const lineOf = (list: At[]) => list.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("");

/** So many fit beside each other; more of them are drawn smaller. */
const roomy = 60;

function dotsOf(list: At[], radius: number) {
  const r = list.length > roomy ? radius * 0.6 : radius;
  return list
    .map(([x, y]) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`)
    .join("");
}

function Line({ across }: { across: (date: string) => number }) {
  const x = across(useContext(LookedAt));
  return <line className="looked-at" x1={x} x2={x} y1={0} y2={high} />;
}

const said = (list: Reading[], unit: string) =>
  list
    .map((r) => {
      const after = r.after === undefined ? "" : `, after ${one(r.after)}${unit}`;
      return `${r.date} ${one(r.before)}${r.before === undefined ? "" : unit}${after}`;
    })
    .join("; ");
