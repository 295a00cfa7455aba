// A point on the body: a lens laid along the fibre, as large as it is tender.
import type { KeyboardEvent, PointerEvent } from "react";
import type { View } from "./views";
import { useMarkScale, useScale } from "./zoom";

export interface Mark {
  id: string;
  x: number;
  y: number;
  /** Tenderness grade 0–4 sets the size. */
  grade: number;
  /** active: the client's own pain; latent: found only by pressing; spot: neither;
   * earlier: of another visit. */
  kind: "active" | "latent" | "spot" | "earlier";
  label: string;
  number?: number;
  angle?: number;
}

/** Radius of a mark by tenderness, in shares of a thousandth of the view. */
const radius = (grade: number) => 8 + grade * 2.4;

/** Its outline around the origin. */
const lens = (r: number) =>
  `M0,${-r * 1.5}C${r * 1.15},${-r * 0.6} ${r * 1.15},${r * 0.6} 0,${r * 1.5}` +
  `C${-r * 1.15},${r * 0.6} ${-r * 1.15},${-r * 0.6} 0,${-r * 1.5}Z`;

interface Props {
  m: Mark;
  /** Those drawn already: where one is near, the number goes to the other side. */
  before: Mark[];
  /** Where it is shown; elsewhere than it lies while it is dragged. */
  at: { x: number; y: number };
  view: View;
  selected: boolean;
  onSelect?: () => void;
  onGrab: (e: PointerEvent) => void;
}

export function MarkShape({ m, before, at, view, selected, onSelect, onGrab }: Props) {
  const scale = useMarkScale(view);
  // A small body has less room for marks than for what is read beside them.
  const r = radius(m.grade) * Math.sqrt(scale * useScale(view));
  const near = (o: Mark) => Math.abs(o.y - at.y) < 20 * scale && Math.abs(o.x - at.x) < 30 * scale;
  const toLeft = before.filter(near).length % 2 === 1;
  const beside = r * 1.35 + 4 * scale;
  const keys = (e: KeyboardEvent) => {
    if (!onSelect || (e.key !== "Enter" && e.key !== " ")) return;
    e.preventDefault();
    e.stopPropagation();
    onSelect();
  };
  return (
    <g
      className="mark"
      transform={`translate(${at.x} ${at.y})`}
      data-mark={m.id}
      role={onSelect ? "button" : "img"}
      tabIndex={onSelect ? 0 : undefined}
      aria-label={m.label}
      aria-pressed={onSelect ? selected : undefined}
      onKeyDown={keys}
      onPointerDown={onGrab}
    >
      <circle r={r * 1.9 + 3 * scale} fill={selected ? "var(--point)" : "transparent"} opacity={0.18} />
      <Lens m={m} r={r} scale={scale} />
      {m.number !== undefined && (
        <text
          x={toLeft ? -beside : beside}
          textAnchor={toLeft ? "end" : "start"}
          y={6.6 * scale}
          fontSize={19 * scale}
          fontWeight={650}
          fill="var(--point)"
          stroke="var(--card)"
          strokeWidth={3 * scale}
          paintOrder="stroke"
        >
          {m.number}
        </text>
      )}
    </g>
  );
}

/** Filled when active, hollow when latent, dashed when of another visit. */
function Lens({ m, r, scale }: { m: Mark; r: number; scale: number }) {
  const early = m.kind === "earlier";
  return (
    <g transform={`rotate(${m.angle ?? 0})`}>
      <path
        d={lens(r)}
        fill={m.kind === "active" ? "var(--point)" : "var(--card)"}
        fillOpacity={early ? 0.35 : 1}
        stroke="var(--point)"
        strokeWidth={1.8 * scale}
        strokeDasharray={early ? `${2.4 * scale} ${2 * scale}` : undefined}
      />
      {m.kind === "latent" && <circle r={1.6 * scale} fill="var(--point)" />}
    </g>
  );
}
