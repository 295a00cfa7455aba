// How often one is right when one says how sure one is: on the diagonal they are the same.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Card } from "../../parts/controls";
import { Said } from "../../parts/layout";

const Svg = styled.svg`
  display: block;
  width: 100%;
  max-width: 340px;
  text {
    font: 500 12px var(--text);
    fill: var(--ink-soft);
  }
`;

const left = 34;
const bottom = 250;
const side = 230;

export function Calibration({ of }: { of: Schemas["Calibrated"] }) {
  const x = (v: number) => left + (v / 100) * side;
  const y = (v: number) => bottom - (v / 100) * side;
  const bins = of.bins ?? [];
  return (
    <Card data-calibration={of.n}>
      <h2>How sure, how right</h2>
      <Said>{of.text}</Said>
      {bins.length > 0 && (
        <Svg viewBox="0 0 290 290" role="img" aria-label={of.text}>
          <rect
            x={left}
            y={bottom - side}
            width={side}
            height={side}
            fill="var(--paper)"
            stroke="var(--line-soft)"
          />
          <path d={`M${x(0)} ${y(0)}L${x(100)} ${y(100)}`} stroke="var(--line)" strokeDasharray="4 4" />
          <path
            d={bins.map((b, i) => `${i ? "L" : "M"}${x(b.said_pct)} ${y(b.right_pct)}`).join("")}
            fill="none"
            stroke="var(--accent)"
            strokeWidth={2.2}
          />
          {bins.map((b) => (
            <circle key={b.said_pct} cx={x(b.said_pct)} cy={y(b.right_pct)} r={5} fill="var(--accent)">
              <title>{`Said ${b.said_pct} %, right ${b.right_pct} %, ${b.n} statements`}</title>
            </circle>
          ))}
          {[0, 50, 100].map((v) => (
            <g key={v}>
              <text x={x(v)} y={bottom + 16} textAnchor="middle">
                {v}
              </text>
              <text x={left - 6} y={y(v) + 4} textAnchor="end">
                {v}
              </text>
            </g>
          ))}
          <text x={x(50)} y={bottom + 34} textAnchor="middle">
            said, in percent
          </text>
          <text transform={`translate(9 ${y(50)}) rotate(-90)`} textAnchor="middle">
            right, in percent
          </text>
        </Svg>
      )}
      {of.brier !== undefined && (
        <Said className="quiet" $small>
          {`Brier score ${of.brier.toFixed(2)} over ${of.n} statements: 0 is sure and right, 0.25 a coin. Tenths with fewer than ten statements are left out.`}
        </Said>
      )}
    </Card>
  );
}
