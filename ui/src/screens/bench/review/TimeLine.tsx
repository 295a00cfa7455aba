// A result over time: the force of a hold and the client's numbers, what was done, and the marks.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { clock } from "../../../parts/words";
import { ruleOf } from "../words";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  text {
    font: 500 12px var(--text);
    fill: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
  .said {
    font-weight: 650;
    fill: var(--ink);
  }
  .mark {
    cursor: pointer;
  }
`;

const wide = 620;
const high = 150;
const floor = 104;
const left = 8;

interface Props {
  review: Schemas["PracticeReview"];
  at?: number;
  onAt: (t: number) => void;
}

export function TimeLine({ review, at, onAt }: Props) {
  const { input, outcome } = review;
  const { actions } = input;
  const marks = outcome.marks ?? [];
  const end = Math.max(10, actions.at(-1)?.t ?? 0);
  const x = (t: number) => left + (Math.min(t, end) / end) * (wide - 2 * left);
  const presses = actions.filter((a) => a.action === "press" && !a.view && a.force_n !== undefined);
  const y = (n: number) => floor - (Math.min(n, 40) / 40) * (floor - 14);
  const numbers = (outcome.client ?? []).filter((c) => /^\d+$/.test(c.says ?? ""));
  const step = presses
    .map((p, i) => `${i ? "H" : "M"}${x(p.t)}${i ? "" : ` ${y(0)}`}V${y(p.force_n ?? 0)}`)
    .join("");
  // Without a hold there is no force to draw.
  const top = presses.length > 0 ? 0 : floor - 14;
  return (
    <Svg
      viewBox={`0 ${top} ${wide} ${high - top}`}
      role="group"
      aria-label={`${clock(end)} in all, ${marks.length} marks`}
    >
      <path d={`M${left} ${floor}H${wide - left}`} stroke="var(--line)" />
      {presses.length > 0 && (
        <path d={`${step}H${x(end)}`} fill="none" stroke="var(--accent)" strokeWidth={2} data-force-line />
      )}
      {presses.length > 0 && (
        <text x={left} y={12}>
          force, to 40 N
        </text>
      )}
      {numbers.map((n, i) => (
        <text key={i} className="said" x={x(n.t)} y={y(0) - 6} textAnchor="middle">
          {presses.length > 0 ? n.says : ""}
        </text>
      ))}
      {actions.map((a, i) => (
        <path key={i} d={`M${x(a.t)} ${floor}v6`} stroke="var(--ink-soft)" />
      ))}
      {marks.map((m, i) => (
        <g
          key={i}
          className="mark"
          transform={`translate(${x(m.t)} ${floor + 17})`}
          onClick={() => onAt(m.t)}
        >
          <title>{`${clock(m.t)} ${ruleOf(m.rule).name}`}</title>
          <rect
            x={-5}
            y={-5}
            width={10}
            height={10}
            rx={2}
            fill={m.rule === "flag-found" ? "var(--accent)" : "var(--warn)"}
            stroke={at === m.t ? "var(--ink)" : "var(--card)"}
            strokeWidth={2}
          />
        </g>
      ))}
      {at !== undefined && (
        <path d={`M${x(at)} ${top + 4}V${floor}`} stroke="var(--ink)" strokeDasharray="3 3" data-looked-at />
      )}
      <text x={left} y={high - 6}>
        0:00
      </text>
      <text x={wide - left} y={high - 6} textAnchor="end">
        {clock(end)}
      </text>
    </Svg>
  );
}
