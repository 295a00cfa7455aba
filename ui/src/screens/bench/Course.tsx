// One exercise's results in the order in which they came, from nothing to full.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { percent } from "./words";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: 46px;
  overflow: visible;
`;

const wide = 300;
const high = 46;

export function Course({ results }: { results: Schemas["PracticeResult"][] }) {
  const means = results.flatMap((r) => (r.mean === undefined ? [] : [r.mean]));
  const x = (i: number) => 5 + (i * (wide - 10)) / Math.max(1, means.length - 1);
  const y = (m: number) => high - 5 - m * (high - 10);
  return (
    <Svg
      viewBox={`0 0 ${wide} ${high}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={means.map(percent).join(", ")}
    >
      <path
        d={`M0 ${y(0)}H${wide}M0 ${y(1)}H${wide}`}
        stroke="var(--line-soft)"
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={`M0 ${y(0.8)}H${wide}`}
        stroke="var(--line)"
        strokeDasharray="3 4"
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={means.map((m, i) => `${i ? "L" : "M"}${x(i)} ${y(m)}`).join("")}
        fill="none"
        stroke="var(--accent)"
        strokeWidth={2.4}
        strokeLinejoin="round"
        vectorEffect="non-scaling-stroke"
      />
    </Svg>
  );
}
