// One course on a time axis that it shares with the rows above and below: before
// hollow, after filled, the usual range as a band, treatments as ticks.
import { styled } from "styled-components";
import { one } from "../parts/words";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: 62px;
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
`;

export interface Reading {
  date: string;
  before?: number;
  after?: number;
}

interface Props {
  label: string;
  readings: Reading[];
  /** A second side, drawn thinner. */
  second?: Reading[];
  /** Where a date lies, 0 to 1. */
  x: (date: string) => number;
  min: number;
  max: number;
  band?: [number, number];
  unit: string;
  /** Days on which something was pressed. */
  treated: string[];
  /** The date that is looked at. */
  at: string;
  color?: string;
}

const width = 560;
const high = 62;
const left = 30;
const right = 52;
const top = 8;
const floor = 52;

export function TimeRow({ label, readings, second, x, min, max, band, unit, treated, at, color }: Props) {
  const across = (date: string) => left + 8 + x(date) * (width - left - right - 16);
  const up = (v: number) => floor - ((Math.min(max, Math.max(min, v)) - min) / (max - min)) * (floor - top);
  const line = (list: Reading[]) =>
    list
      .filter((r) => r.before !== undefined)
      .map((r) => `${across(r.date)},${up(r.before ?? 0)}`)
      .join(" ");
  const stroke = color ?? "var(--point)";
  const end = readings.findLast((r) => r.before !== undefined);
  return (
    <Svg viewBox={`0 0 ${width} ${high}`} role="img" aria-label={`${label}: ${said(readings, unit)}`}>
      {band && (
        <rect
          x={left}
          width={width - left - right}
          y={up(band[1])}
          height={Math.max(0, up(band[0]) - up(band[1]))}
          fill="var(--accent-soft)"
        />
      )}
      <line x1={left} x2={width - right} y1={floor} y2={floor} stroke="var(--line-soft)" />
      <line x1={left} x2={width - right} y1={top} y2={top} stroke="var(--line-soft)" />
      <text x={left - 6} y={floor + 4} textAnchor="end">
        {one(min)}
      </text>
      <text x={left - 6} y={top + 4} textAnchor="end">
        {one(max)}
      </text>
      {treated.map((d) => (
        <line key={d} x1={across(d)} x2={across(d)} y1={floor} y2={floor + 7} stroke="var(--ink-soft)" />
      ))}
      <line
        x1={across(at)}
        x2={across(at)}
        y1={0}
        y2={high}
        stroke="var(--accent)"
        strokeDasharray="3 3"
        strokeWidth="1.4"
      />
      {second && (
        <polyline points={line(second)} fill="none" stroke="var(--right)" strokeWidth="1.6" opacity="0.75" />
      )}
      <polyline points={line(readings)} fill="none" stroke={stroke} strokeWidth="2" strokeLinejoin="round" />
      {readings.map((r) => (
        <Dots key={r.date} r={r} x={across(r.date)} up={up} stroke={stroke} />
      ))}
      {end && (
        <text className="end" x={across(end.date) + 9} y={up(end.before ?? 0) + 4}>
          {one(end.before)}
          {unit}
        </text>
      )}
    </Svg>
  );
}

const said = (list: Reading[], unit: string) =>
  list
    .map((r) => {
      const after = r.after === undefined ? "" : `, after ${one(r.after)}${unit}`;
      return `${r.date} ${one(r.before)}${r.before === undefined ? "" : unit}${after}`;
    })
    .join("; ");

function Dots({ r, x, up, stroke }: { r: Reading; x: number; up: (v: number) => number; stroke: string }) {
  return (
    <g>
      {r.before !== undefined && r.after !== undefined && (
        <line
          x1={x}
          x2={x}
          y1={up(r.before)}
          y2={up(r.after)}
          stroke={stroke}
          strokeWidth="4"
          opacity="0.2"
        />
      )}
      {r.before !== undefined && (
        <circle cx={x} cy={up(r.before)} r="3.8" fill="var(--card)" stroke={stroke} strokeWidth="1.8" />
      )}
      {r.after !== undefined && <circle cx={x} cy={up(r.after)} r="3" fill={stroke} />}
    </g>
  );
}
