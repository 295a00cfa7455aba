// How the client lies over the session, with what lies in each position.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { positionName, sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";

const Bar = styled.div`
  display: grid;
  grid-template-rows: 20px 46px 16px;
  margin: var(--s2) 0;
  .lying,
  .part {
    display: flex;
    min-width: 0;
  }
  .lying span {
    flex: none;
    font-size: var(--t1);
    color: var(--ink-soft);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .lying span:not(:empty) {
    border-left: 2px solid var(--line);
    padding-left: 5px;
  }
  .part > * {
    flex: none;
    margin-block: 3px;
    border: 0;
    border-right: 2px solid var(--card);
    border-radius: 6px;
    background: var(--line-soft);
    padding: 0;
    overflow: hidden;
    font: 560 var(--t1) / 1 var(--text);
    color: var(--ink-soft);
    display: grid;
    place-items: center;
  }
  .part > [data-kind="gone"] {
    background: none;
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
  plan: Schemas["PlanState"];
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
  const share = (m: number) => `${(m / whole) * 100}%`;
  const gone = share(plan.gone_min);
  return (
    <Bar data-timeline>
      <div className="lying">
        {positions(plan).map((p) => {
          const wide = share(p.minutes);
          return (
            <span key={p.from} style={{ width: wide }}>
              {p.position && sentence(positionName(p.position))}
            </span>
          );
        })}
      </div>
      <div className="part">
        {plan.gone_min > 0 && <span data-kind="gone" style={{ width: gone }} />}
        {plan.steps.map((s) => (
          <Part key={s.kind + s.starts_min} s={s} n={numberOf(plan, s)} {...{ whole, selected, onSelect }} />
        ))}
      </div>
      <div className="ticks" aria-hidden>
        {ticks(whole).map((m) => {
          const at = share(m);
          return (
            <i key={m} style={{ left: at }}>
              {m}
            </i>
          );
        })}
      </div>
    </Bar>
  );
}

const numberOf = (plan: Schemas["PlanState"], s: Schemas["PlanStep"]) =>
  plan.steps.filter((x) => x.point).indexOf(s) + 1;

interface PartProps extends Pick<Props, "selected" | "onSelect"> {
  s: Schemas["PlanStep"];
  n: number;
  whole: number;
}

function Part({ s, n, whole, selected, onSelect }: PartProps) {
  const wide = `${(s.minutes / whole) * 100}%`;
  const { point } = s;
  if (!point)
    return (
      <span data-kind={s.kind} style={{ width: wide }} title={kindName[s.kind]}>
        {s.minutes / whole > 0.1 && kindName[s.kind]}
      </span>
    );
  return (
    <button
      type="button"
      data-kind="treat"
      data-on={point === selected}
      style={{ width: wide }}
      aria-label={`Point ${n} in the order`}
      onClick={() => onSelect(point)}
    >
      {n}
    </button>
  );
}

/** Every quarter of an hour, and the end. */
function ticks(whole: number): number[] {
  const out = [];
  for (let m = 15; m < whole - 4; m += 15) out.push(m);
  return [...out, Math.round(whole)];
}

interface Lying {
  position?: string;
  from: number;
  minutes: number;
}

/** The stretches of one position, and those of none. */
function positions({ steps, gone_min }: Schemas["PlanState"]): Lying[] {
  const out: Lying[] = [{ from: 0, minutes: gone_min }];
  for (const s of steps) {
    const last = out.at(-1);
    if (last && last.position === s.position) last.minutes += s.minutes;
    else out.push({ position: s.position, from: s.starts_min, minutes: s.minutes });
  }
  return out;
}
