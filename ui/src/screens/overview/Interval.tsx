// A share with the interval that holds the true one.
import type { Schemas } from "../../api/client";

const wide = 180;

/** A share with its interval, from nothing to all. */
export function Interval({ s, said }: { s: Schemas["Share"]; said?: number }) {
  if (s.of === 0) return null;
  const x = (v: number) => 4 + v * (wide - 8);
  const percent = (share: number) => Math.round(share * 100);
  const words = `${percent(s.yes / s.of)} %, between ${percent(s.low)} and ${percent(s.high)} %`;
  return (
    <svg width={wide} height={18} role="img" aria-label={words}>
      <title>{words}</title>
      <line
        x1={4}
        x2={wide - 4}
        y1={9}
        y2={9}
        stroke="var(--line-soft)"
        strokeWidth={6}
        strokeLinecap="round"
      />
      <line
        x1={x(s.low)}
        x2={x(s.high)}
        y1={9}
        y2={9}
        stroke="var(--accent)"
        strokeWidth={s.few ? 1.5 : 4}
        strokeLinecap="round"
      />
      {!s.few && <circle cx={x(s.yes / s.of)} cy={9} r={5} fill="var(--accent)" />}
      {said !== undefined && (
        <path d={`M${x(said)} 1l4 5h-8z`} fill="var(--ink)" stroke="var(--card)" strokeWidth={0.8} />
      )}
    </svg>
  );
}
