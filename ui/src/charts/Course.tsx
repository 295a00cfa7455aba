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
`;

export interface Step {
  date: string;
  before?: number;
  after?: number;
  note?: string;
}

interface Props {
  label: string;
  steps: Step[];
  min: number;
  max: number;
  ticks: number[];
  band?: [number, number];
  color: string;
  unit: string;
  /** Bars below the chart, such as seconds pressed. */
  bars?: { values: number[]; max: number; name: string };
  second?: { steps: Step[]; color: string; name: string };
  name?: string;
}

const W = 380;
const left = 30;
const right = 48;
const shortDate = (d: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", timeZone: "UTC" }).format(
    new Date(`${d}T00:00:00Z`),
  );

export function CourseChart({ label, steps, min, max, ticks, band, color, unit, bars, second, name }: Props) {
  const top = 12;
  const H = 118;
  const barTop = H + 12;
  const total = bars ? barTop + 46 : H + 20;
  const dates = [...new Set([...steps, ...(second?.steps ?? [])].map((s) => s.date))].sort();
  const x = (d: string) =>
    left + 14 + (dates.length < 2 ? 0 : (dates.indexOf(d) / (dates.length - 1)) * (W - left - right - 28));
  const y = (v: number) => top + (1 - (v - min) / (max - min)) * (H - top);
  const line = (list: Step[], c: string, title?: string, dy = 0) => {
    const seen = list.filter((s) => s.before !== undefined);
    const end = seen.at(-1);
    return (
      <g>
        <polyline
          points={seen.map((s) => `${x(s.date)},${y(s.before as number)}`).join(" ")}
          fill="none"
          stroke={c}
          strokeWidth="2"
          strokeLinejoin="round"
        />
        {list.map((s) => (
          <g key={s.date}>
            {s.before !== undefined && s.after !== undefined && (
              <line
                x1={x(s.date)}
                x2={x(s.date)}
                y1={y(s.before)}
                y2={y(s.after)}
                stroke={c}
                strokeWidth="5"
                opacity="0.22"
              />
            )}
            {s.before !== undefined && (
              <circle cx={x(s.date)} cy={y(s.before)} r="4.2" fill="var(--card)" stroke={c} strokeWidth="2" />
            )}
            {s.after !== undefined && <circle cx={x(s.date)} cy={y(s.after)} r="3.4" fill={c} />}
          </g>
        ))}
        {end && (
          <text
            x={x(end.date) + 10}
            y={y(end.before as number) + 4 + dy}
            style={{ fill: c, fontWeight: 650 }}
          >
            {title ? `${title} ` : ""}
            {one(end.before)}
            {unit}
          </text>
        )}
      </g>
    );
  };
  const said = steps
    .map(
      (s) =>
        `${shortDate(s.date)}: before ${one(s.before)}, after ${one(s.after)}${s.note ? `, ${s.note}` : ""}`,
    )
    .join("; ");
  const clash =
    second &&
    Math.abs(
      (steps.findLast((s) => s.before !== undefined)?.before ?? 0) -
        (second.steps.findLast((s) => s.before !== undefined)?.before ?? 0),
    ) /
      (max - min) <
      0.12;
  const mineLower =
    (steps.findLast((s) => s.before !== undefined)?.before ?? 0) <
    (second?.steps.findLast((s) => s.before !== undefined)?.before ?? 0);
  const nudge = clash ? (mineLower ? 7 : -7) : 0;
  return (
    <Svg viewBox={`0 0 ${W} ${total}`} role="img" aria-label={`${label}: ${said}`}>
      {band && (
        <rect
          x={left}
          y={y(Math.min(band[1], max))}
          width={W - left - right}
          height={y(band[0]) - y(Math.min(band[1], max))}
          fill="var(--accent-soft)"
        />
      )}
      {ticks.map((t) => (
        <g key={t}>
          <line x1={left} x2={W - right} y1={y(t)} y2={y(t)} stroke="var(--line-soft)" />
          <text x={left - 6} y={y(t) + 4} textAnchor="end">
            {t}
          </text>
        </g>
      ))}
      {second && line(second.steps, second.color, second.name, -nudge)}
      {line(steps, color, name, nudge)}
      {bars
        ? dates.map((d) => {
            const i = steps.findIndex((s) => s.date === d);
            const v = i < 0 ? 0 : (bars.values[i] ?? 0);
            const h = (v / bars.max) * 22;
            return (
              <g key={d}>
                <rect
                  x={x(d) - 7}
                  y={barTop + 22 - h}
                  width="14"
                  height={h}
                  rx="2"
                  fill="var(--ink-soft)"
                  opacity="0.35"
                />
                <text x={x(d)} y={barTop + 42} textAnchor="middle" style={{ fontSize: 10 }}>
                  {shortDate(d)}
                </text>
                <text x={x(d)} y={barTop + 31} textAnchor="middle" style={{ fontSize: 9.5 }}>
                  {v ? `${Math.round(v)} s${steps[i]?.note ? ` · ${steps[i]?.note}` : ""}` : ""}
                </text>
              </g>
            );
          })
        : dates.map((d) => (
            <text key={d} x={x(d)} y={H + 16} textAnchor="middle" style={{ fontSize: 10 }}>
              {shortDate(d)}
            </text>
          ))}
    </Svg>
  );
}
