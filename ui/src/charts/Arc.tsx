// A movement as an arc: the usual range shaded, left and right drawn in,
// earlier visits as ghosts. People look, they do not read.
import { type PointerEvent, useRef } from "react";
import { styled } from "styled-components";
import { deg } from "../parts/words";
import { type ArcScale, arcScale, cx, cy, R, type Side } from "./arc";

export interface Hand {
  side: Side;
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
  .pull {
    cursor: ew-resize;
  }
`;
const colour = { left: "var(--left)", right: "var(--right)", midline: "var(--left)" };

interface Props {
  label: string;
  reference: number;
  flagBelow: number;
  /** Two-sided movements open to both sides; midline ones to the right. */
  hands: Hand[];
  onDrag?: (side: Side, degrees: number) => void;
}

export function Arc({ label, reference, flagBelow, hands, onDrag }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const scale = arcScale(reference);
  const pull = (side: Side) => (e: PointerEvent) => {
    if (!onDrag || (e.type === "pointermove" && e.buttons === 0)) return;
    (e.target as Element).setPointerCapture(e.pointerId);
    const m = svg.current?.getScreenCTM();
    if (!m) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
    onDrag(side, scale.degreesAt(side, p.x, p.y));
  };
  return (
    <Svg
      ref={svg}
      viewBox="0 0 260 124"
      role="img"
      aria-label={`${label}: ${said(hands)}; usual ${deg(reference)}`}
    >
      <line x1={cx} y1={cy} x2={cx} y2={cy - R - 6} stroke="var(--line)" strokeWidth="1" />
      {hands.map((h) => (
        <g key={h.side}>
          <path d={scale.band(h.side, 0, scale.full, R - 13, R)} fill="var(--line-soft)" />
          <path
            d={scale.band(h.side, flagBelow, reference, R - 13, R)}
            fill="var(--accent-soft)"
            stroke="var(--accent)"
            strokeWidth="0.7"
          />
          <Ghosts h={h} at={scale.at} />
          <Needles h={h} at={scale.at} />
          {onDrag && (
            <path
              className="pull"
              d={scale.band(h.side, 0, scale.full, 24, R + 12)}
              fill="transparent"
              onPointerDown={pull(h.side)}
              onPointerMove={pull(h.side)}
            />
          )}
        </g>
      ))}
      <circle cx={cx} cy={cy} r="3.5" fill="var(--ink)" />
      {hands.map((h) => (
        <SideName key={h.side} side={h.side} />
      ))}
    </Svg>
  );
}

const said = (hands: Hand[]) =>
  hands
    .map((h) => {
      const side = h.side === "midline" ? "" : `${h.side} `;
      return `${side}${deg(h.value)}${h.after === undefined ? "" : `, after ${deg(h.after)}`}`;
    })
    .join("; ");

type At = ArcScale["at"];

/** Earlier visits, the latest strongest. */
function Ghosts({ h, at }: { h: Hand; at: At }) {
  const list = h.ghosts ?? [];
  return list.map((g, i) => {
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
        opacity={0.18 + (0.3 * (i + 1)) / list.length}
      />
    );
  });
}

/** What was read before, and after; the last one with its number. */
function Needles({ h, at }: { h: Hand; at: At }) {
  const needle = (v: number, width: number, dashes?: string) => {
    const [x, y] = at(h.side, v, R + 5);
    return (
      <line
        x1={cx}
        y1={cy}
        x2={x}
        y2={y}
        stroke={colour[h.side]}
        strokeWidth={width}
        strokeLinecap="round"
        strokeDasharray={dashes}
      />
    );
  };
  const last = h.after ?? h.value;
  if (last === undefined) return null;
  const [x, y] = at(h.side, last, R + 14);
  return (
    <>
      {h.value !== undefined && needle(h.value, 2.6, h.after === undefined ? undefined : "4 4")}
      {h.after !== undefined && needle(h.after, 3.4)}
      <text
        x={x}
        y={y + 3}
        fontSize="13"
        fontWeight="650"
        fill={colour[h.side]}
        textAnchor={h.side === "left" ? "end" : "start"}
      >
        {deg(last)}
      </text>
    </>
  );
}

function SideName({ side }: { side: Side }) {
  if (side === "midline") return null;
  const left = side === "left";
  return (
    <text
      x={left ? cx - 10 : cx + 10}
      y={cy + 15}
      fontSize="11"
      fill="var(--ink-soft)"
      textAnchor={left ? "end" : "start"}
    >
      {side}
    </text>
  );
}
