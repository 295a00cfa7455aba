// The numbers of this hold over time, with the target band drawn in.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: 100%;
  text {
    font-family: var(--text);
    font-size: 15px;
    fill: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
`;

/** Nothing is pressed in these, nor is anything compared. */
const apart: Schemas["Phase"][] = ["rest", "settle"];

/** When it was pressed, from and to, in seconds: by parts, or by the stages of the
 * first rules. */
function stretches({ parts, stages }: Schemas["Summary"], now: number, running: boolean) {
  if (!parts) return stages.map((s): [number, number] => [s.start_s, s.ended_by ? s.end_s : now]);
  // The summary is as of the last event; the part that runs goes on.
  return parts
    .map((p, i) => ({ ...p, end_s: running && i === parts.length - 1 ? Math.max(now, p.end_s) : p.end_s }))
    .filter((p) => !apart.includes(p.kind))
    .map((p): [number, number] => [p.start_s, p.end_s]);
}

interface Props {
  summary: Schemas["Summary"];
  now: number;
  /** A part runs, so its stretch grows. */
  running: boolean;
}

export function Trace({ summary, now, running }: Props) {
  const W = 920;
  const H = 128;
  const left = 30;
  const span = Math.max(60, Math.ceil((now + 5) / 30) * 30);
  const step = Math.ceil(span / 6 / 30) * 30;
  const x = (t: number) => left + (t / span) * (W - left - 20);
  const y = (v: number) => 12 + (1 - v / 10) * (H - 40);
  const l = summary.limits;
  const said = summary.trace.map((p) => `${p.score} at ${Math.round(p.t)} seconds`);
  return (
    <Svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={`Numbers so far: ${said.join(", ") || "none"}`}>
      <rect
        x={left}
        width={W - left - 20}
        y={y(l.soft_ceiling)}
        height={y(Math.max(0, l.target - 1)) - y(l.soft_ceiling)}
        fill="var(--accent-soft)"
      />
      <line
        x1={left}
        x2={W - 20}
        y1={y(l.hard_ceiling)}
        y2={y(l.hard_ceiling)}
        stroke="var(--stop)"
        strokeDasharray="5 5"
      />
      {[0, 5, 10].map((v) => (
        <text key={v} x={left - 8} y={y(v) + 5} textAnchor="end">
          {v}
        </text>
      ))}
      {stretches(summary, now, running).map(([from, to]) => (
        <rect
          key={from}
          x={x(from)}
          width={Math.max(1, x(to) - x(from))}
          y={H - 24}
          height="5"
          rx="2"
          fill="var(--accent)"
        />
      ))}
      <polyline
        points={summary.trace.map((p) => `${x(p.t)},${y(p.score)}`).join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.5"
      />
      {summary.trace.map((p) => (
        <circle
          key={p.t}
          cx={x(p.t)}
          cy={y(p.score)}
          r="5"
          fill={p.score > l.soft_ceiling ? "var(--warn)" : "var(--ink)"}
        />
      ))}
      <line x1={x(now)} x2={x(now)} y1="8" y2={H - 20} stroke="var(--ink-soft)" opacity="0.5" />
      {Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => i * step).map((t) => (
        <text key={t} x={x(t)} y={H - 4} textAnchor="middle">
          {t} s
        </text>
      ))}
    </Svg>
  );
}
