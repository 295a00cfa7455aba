// How the client lies over the session, with what lies in each position.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { positionName, sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";

const Bar = styled.div`
  display: grid;
  grid-template-rows: 20px 46px 16px;
  position: relative;
  margin: var(--s2) 0;
  .lying,
  .part {
    position: relative;
    min-width: 0;
  }
  .lying span {
    position: absolute;
    inset-block: 0;
    font-size: var(--t1);
    color: var(--ink-soft);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    border-left: 2px solid var(--line);
    padding-left: 5px;
  }
  .part > * {
    position: absolute;
    inset-block: 3px;
    border: 0;
    border-radius: 6px;
    background: var(--line-soft);
    padding: 0;
    overflow: hidden;
    font: 560 var(--t1) / 1 var(--text);
    color: var(--ink-soft);
    display: grid;
    place-items: center;
  }
  .part > [data-kind="treat"] {
    background: var(--point-soft);
    color: var(--point);
    cursor: pointer;
  }
  .part > [data-on="true"] {
    background: var(--point);
    color: var(--card);
  }
  .part > [data-kind="turn"] {
    background: repeating-linear-gradient(45deg, var(--line) 0 3px, transparent 3px 7px);
  }
  .ticks {
    position: relative;
    font-size: 12px;
    color: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
  .ticks i {
    position: absolute;
    translate: -50% 0;
    font-style: normal;
  }
`;

interface Props extends StepProps {
  plan: Schemas["Planned"];
  minutes: number;
  selected?: string;
  onSelect: (point: string) => void;
}

const kindName: Record<string, string> = {
  recheck: "recheck",
  "warm-up": "warm-up",
  turn: "turn",
  lengthen: "lengthen",
  close: "close",
};

export function Timeline({ plan, minutes, selected, onSelect }: Props) {
  const whole = Math.max(minutes, plan.gone_min + plan.minutes);
  const at = (m: number) => `${(m / whole) * 100}%`;
  let n = 0;
  return (
    <Bar data-timeline>
      <div className="lying">
        {positions(plan.steps).map((p) => (
          <span key={p.from} style={{ left: at(p.from), width: at(p.to - p.from) }}>
            {sentence(positionName(p.position))}
          </span>
        ))}
      </div>
      <div className="part">
        {plan.steps.map((s) => {
          const place = { left: at(s.starts_min), width: at(s.minutes) };
          const key = s.kind + s.starts_min;
          if (!s.point)
            return (
              <span key={key} data-kind={s.kind} style={place} title={kindName[s.kind]}>
                {s.minutes / whole > 0.08 && kindName[s.kind]}
              </span>
            );
          n += 1;
          return (
            <button
              key={key}
              type="button"
              data-kind="treat"
              data-on={s.point === selected}
              style={place}
              aria-label={`Point ${n} in the order`}
              onClick={() => s.point && onSelect(s.point)}
            >
              {n}
            </button>
          );
        })}
      </div>
      <div className="ticks" aria-hidden>
        {ticks(whole).map((m) => (
          <i key={m} style={{ left: at(m) }}>
            {m}
          </i>
        ))}
      </div>
    </Bar>
  );
}

/** Every quarter of an hour, and the end. */
function ticks(whole: number): number[] {
  const out = [];
  for (let m = 15; m < whole - 4; m += 15) out.push(m);
  return [...out, Math.round(whole)];
}

interface Lying {
  position: string;
  from: number;
  to: number;
}

/** The stretches of one position. */
function positions(steps: Schemas["PlanStep"][]): Lying[] {
  const out: Lying[] = [];
  for (const s of steps) {
    if (!s.position) continue;
    const last = out.at(-1);
    const to = s.starts_min + s.minutes;
    if (last?.position === s.position) last.to = to;
    else out.push({ position: s.position, from: s.starts_min, to });
  }
  return out;
}
