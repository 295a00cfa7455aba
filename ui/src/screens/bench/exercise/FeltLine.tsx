// What the finger meets, as a line that moves: the newest at its right end.
import { styled } from "styled-components";

const Look = styled.svg`
  display: block;
  width: 100%;
  height: 120px;
  background: var(--paper);
  border-radius: var(--r1);
  text {
    font: 500 12px var(--text);
    fill: var(--ink-soft);
  }
`;

/** So many values fit. */
export const inLine = 120;
const wide = 360;
const high = 120;

export function FeltLine({ values }: { values: readonly number[] }) {
  const x = (i: number) => wide - ((values.length - 1 - i) * wide) / (inLine - 1);
  const y = (v: number) => high - 8 - (v / 100) * (high - 16);
  const last = values.at(-1);
  return (
    <Look
      viewBox={`0 0 ${wide} ${high}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`Resistance under the finger: ${last ?? 0} of 100`}
      data-felt={last ?? ""}
    >
      <path d={`M0 ${y(0)}H${wide}M0 ${y(50)}H${wide}M0 ${y(100)}H${wide}`} stroke="var(--line-soft)" />
      {values.length > 1 && (
        <path
          d={values.map((v, i) => `${i ? "L" : "M"}${x(i).toFixed(1)} ${y(v).toFixed(1)}`).join("")}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={3}
          strokeLinejoin="round"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {last !== undefined && (
        <path
          d={`M${wide - 5} ${y(last)}h0`}
          stroke="var(--point)"
          strokeWidth={11}
          strokeLinecap="round"
          vectorEffect="non-scaling-stroke"
        />
      )}
    </Look>
  );
}
