// A movement as an arc: the usual range shaded, left and right drawn in,
// earlier visits as ghosts. People look, they do not read.
import { useRef } from "react";
import { styled } from "styled-components";
import { deg } from "../parts/words";

export interface Hand {
  side: "left" | "right" | "midline";
  value?: number;
  after?: number;
  ghosts?: number[];
}

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  touch-action: none;
  user-select: none;
  text {
    font-family: var(--text);
  }
`;
const cx = 130;
const cy = 104;
const R = 78;
const colour = { left: "var(--left)", right: "var(--right)", midline: "var(--left)" };

interface Props {
  label: string;
  reference: number;
  flagBelow: number;
  /** Two-sided movements open to both sides; midline ones to the right. */
  hands: Hand[];
  onDrag?: (side: Hand["side"], degrees: number) => void;
}

export function Arc({ label, reference, flagBelow, hands, onDrag }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  // Small ranges are drawn wider than they are, so that 5° can be seen.
  const full = Math.max(reference * 1.25, 25);
  const spread = 88;
  const angle = (side: Hand["side"], d: number) => {
    const a = (Math.max(0, Math.min(d, full)) / full) * spread;
    return ((side === "left" ? -a : a) * Math.PI) / 180;
  };
  const at = (side: Hand["side"], d: number, r: number): [number, number] => {
    const a = angle(side, d);
    return [cx + Math.sin(a) * r, cy - Math.cos(a) * r];
  };
  const band = (side: Hand["side"], from: number, to: number, r0: number, r1: number) => {
    const [a, b, c, d] = [at(side, from, r1), at(side, to, r1), at(side, to, r0), at(side, from, r0)];
    const sweep = side === "left" ? 0 : 1;
    return `M${a}A${r1},${r1} 0 0 ${sweep} ${b}L${c}A${r0},${r0} 0 0 ${1 - sweep} ${d}Z`;
  };
  const pull = (side: Hand["side"]) => (e: React.PointerEvent) => {
    if (!onDrag || (e.type === "pointermove" && e.buttons === 0)) return;
    (e.target as Element).setPointerCapture(e.pointerId);
    const m = svg.current?.getScreenCTM();
    if (!m) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
    const a = (Math.atan2(p.x - cx, cy - p.y) * 180) / Math.PI;
    const d = Math.round(((side === "left" ? -a : a) / spread) * full);
    onDrag(side, Math.max(0, Math.min(Math.round(full), d)));
  };
  const said = hands
    .map(
      (h) =>
        `${h.side === "midline" ? "" : `${h.side} `}${deg(h.value)}${h.after === undefined ? "" : `, after ${deg(h.after)}`}`,
    )
    .join("; ");
  return (
    <Svg ref={svg} viewBox="0 0 260 124" role="img" aria-label={`${label}: ${said}; usual ${deg(reference)}`}>
      <line x1={cx} y1={cy} x2={cx} y2={cy - R - 6} stroke="var(--line)" strokeWidth="1" />
      {hands.map((h) => (
        <g key={h.side}>
          <path d={band(h.side, 0, full, R - 13, R)} fill="var(--line-soft)" />
          <path
            d={band(h.side, flagBelow, reference, R - 13, R)}
            fill="var(--accent-soft)"
            stroke="var(--accent)"
            strokeWidth="0.7"
          />
          {h.ghosts?.map((g, i) => {
            const [x, y] = at(h.side, g, R + 3);
            const [x0, y0] = at(h.side, g, R - 16);
            return (
              <line
                key={`${i}-${g}`}
                className="ghost"
                x1={x0}
                y1={y0}
                x2={x}
                y2={y}
                stroke={colour[h.side]}
                strokeWidth="1.4"
                opacity={0.18 + (0.3 * (i + 1)) / (h.ghosts?.length ?? 1)}
              />
            );
          })}
          {h.value !== undefined && (
            <g>
              <line
                x1={cx}
                y1={cy}
                x2={at(h.side, h.value, R + 5)[0]}
                y2={at(h.side, h.value, R + 5)[1]}
                stroke={colour[h.side]}
                strokeWidth="2.6"
                strokeLinecap="round"
                strokeDasharray={h.after === undefined ? undefined : "4 4"}
              />
            </g>
          )}
          {h.after !== undefined && (
            <line
              x1={cx}
              y1={cy}
              x2={at(h.side, h.after, R + 5)[0]}
              y2={at(h.side, h.after, R + 5)[1]}
              stroke={colour[h.side]}
              strokeWidth="3.4"
              strokeLinecap="round"
            />
          )}
          {(() => {
            const v = h.after ?? h.value;
            if (v === undefined) return null;
            const [x, y] = at(h.side, v, R + 14);
            return (
              <text
                x={x}
                y={y + 3}
                fontSize="13"
                fontWeight="650"
                fill={colour[h.side]}
                textAnchor={h.side === "left" ? "end" : "start"}
              >
                {deg(v)}
              </text>
            );
          })()}
          {onDrag && (
            <path
              d={band(h.side, 0, full, 24, R + 12)}
              fill="transparent"
              style={{ cursor: "ew-resize" }}
              onPointerDown={pull(h.side)}
              onPointerMove={pull(h.side)}
            />
          )}
        </g>
      ))}
      <circle cx={cx} cy={cy} r="3.5" fill="var(--ink)" />
      {hands.map(
        (h) =>
          h.side !== "midline" && (
            <text
              key={h.side}
              x={h.side === "left" ? cx - 10 : cx + 10}
              y={cy + 15}
              fontSize="11"
              fill="var(--ink-soft)"
              textAnchor={h.side === "left" ? "end" : "start"}
            >
              {h.side}
            </text>
          ),
      )}
    </Svg>
  );
}
