// Small multiples across visits: before hollow, after filled, joined; the
// reference band drawn in; labels at the lines, no legend.
import { styled } from "styled-components";
import { one } from "../parts/words";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  text {
    font-family: var(--text);
    font-size: 11px;
    fill: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
  text.date {
    font-size: 10px;
  }
  text.seconds {
    font-size: 9.5px;
  }
`;
const EndLabel = styled.text<{ $color: string }>`
  && {
    fill: ${(p) => p.$color};
    font-weight: 650;
  }
`;

export interface Step {
  date: string;
  before?: number;
  after?: number;
  note?: string;
}

export interface Line {
  steps: Step[];
  color: string;
  name?: string;
}

interface Props {
  label: string;
  main: Line;
  second?: Line;
  min: number;
  max: number;
  ticks: number[];
  band?: [number, number];
  unit: string;
  /** Bars below the chart: seconds pressed. */
  bars?: { values: number[]; max: number };
}

const W = 380;
const H = 118;
const left = 30;
const right = 48;
const top = 12;
const barTop = H + 12;
const shortDate = (d: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", timeZone: "UTC" }).format(
    new Date(`${d}T00:00:00Z`),
  );

/** Places of dates and values. */
interface Scale {
  x: (date: string) => number;
  y: (v: number) => number;
}

export function CourseChart({ label, main, second, min, max, ticks, band, unit, bars }: Props) {
  const dates = [...new Set([...main.steps, ...(second?.steps ?? [])].map((s) => s.date))].sort();
  const width = W - left - right - 28;
  const scale: Scale = {
    x: (d) => left + 14 + (dates.length < 2 ? 0 : (dates.indexOf(d) / (dates.length - 1)) * width),
    y: (v) => top + (1 - (v - min) / (max - min)) * (H - top),
  };
  const nudge = nudgeOf(main, second, max - min);
  return (
    <Svg
      viewBox={`0 0 ${W} ${bars ? barTop + 46 : H + 20}`}
      role="img"
      aria-label={`${label}: ${said(main.steps)}`}
    >
      {band && <Band from={band[0]} to={Math.min(band[1], max)} y={scale.y} />}
      {ticks.map((t) => (
        <g key={t}>
          <line x1={left} x2={W - right} y1={scale.y(t)} y2={scale.y(t)} stroke="var(--line-soft)" />
          <text x={left - 6} y={scale.y(t) + 4} textAnchor="end">
            {t}
          </text>
        </g>
      ))}
      {second && <Steps line={second} scale={scale} unit={unit} nudge={-nudge} />}
      <Steps line={main} scale={scale} unit={unit} nudge={nudge} />
      {dates.map((d) => (
        <text key={d} className="date" x={scale.x(d)} y={bars ? barTop + 42 : H + 16} textAnchor="middle">
          {shortDate(d)}
        </text>
      ))}
      {bars && <Bars steps={main.steps} bars={bars} x={scale.x} />}
    </Svg>
  );
}

const said = (steps: Step[]) =>
  steps
    .map((s) => {
      const note = s.note ? `, ${s.note}` : "";
      return `${shortDate(s.date)}: before ${one(s.before)}, after ${one(s.after)}${note}`;
    })
    .join("; ");

const endOf = (l: Line) => l.steps.findLast((s) => s.before !== undefined);

/** Moves two labels apart that would lie on each other. */
function nudgeOf(main: Line, second: Line | undefined, span: number) {
  if (!second) return 0;
  const a = endOf(main)?.before ?? 0;
  const b = endOf(second)?.before ?? 0;
  if (Math.abs(a - b) / span >= 0.12) return 0;
  return a < b ? 7 : -7;
}

function Band({ from, to, y }: { from: number; to: number; y: Scale["y"] }) {
  return (
    <rect x={left} y={y(to)} width={W - left - right} height={y(from) - y(to)} fill="var(--accent-soft)" />
  );
}

interface StepsProps {
  line: Line;
  scale: Scale;
  unit: string;
  nudge: number;
}

function Steps({ line: { steps, color, name }, scale: { x, y }, unit, nudge }: StepsProps) {
  const seen = steps.filter((s) => s.before !== undefined);
  const end = seen.at(-1);
  return (
    <g>
      <polyline
        points={seen.map((s) => `${x(s.date)},${y(s.before ?? 0)}`).join(" ")}
        fill="none"
        stroke={color}
        strokeWidth="2"
        strokeLinejoin="round"
      />
      {steps.map((s) => (
        <OneStep key={s.date} s={s} color={color} x={x(s.date)} y={y} />
      ))}
      {end && (
        <EndLabel $color={color} x={x(end.date) + 10} y={y(end.before ?? 0) + 4 + nudge}>
          {name ? `${name} ` : ""}
          {one(end.before)}
          {unit}
        </EndLabel>
      )}
    </g>
  );
}

function OneStep({ s, color, x, y }: { s: Step; color: string; x: number; y: Scale["y"] }) {
  const both = s.before !== undefined && s.after !== undefined;
  return (
    <g>
      {both && (
        <line
          x1={x}
          x2={x}
          y1={y(s.before ?? 0)}
          y2={y(s.after ?? 0)}
          stroke={color}
          strokeWidth="5"
          opacity="0.22"
        />
      )}
      {s.before !== undefined && (
        <circle cx={x} cy={y(s.before)} r="4.2" fill="var(--card)" stroke={color} strokeWidth="2" />
      )}
      {s.after !== undefined && <circle cx={x} cy={y(s.after)} r="3.4" fill={color} />}
    </g>
  );
}

interface BarsProps {
  steps: Step[];
  bars: { values: number[]; max: number };
  x: Scale["x"];
}

function Bars({ steps, bars, x }: BarsProps) {
  return steps.map((s, i) => {
    const v = bars.values[i] ?? 0;
    const h = (v / bars.max) * 22;
    return (
      <g key={s.date}>
        <rect
          x={x(s.date) - 7}
          y={barTop + 22 - h}
          width="14"
          height={h}
          rx="2"
          fill="var(--ink-soft)"
          opacity="0.35"
        />
        <text className="seconds" x={x(s.date)} y={barTop + 31} textAnchor="middle">
          {v ? `${Math.round(v)} s${s.note ? ` · ${s.note}` : ""}` : ""}
        </text>
      </g>
    );
  });
}
