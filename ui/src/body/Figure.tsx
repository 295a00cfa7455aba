// One view of the body with marks on it, touched or driven by keys.
import { type KeyboardEvent, type ReactNode, useRef, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../api/client";
import { BodySvg, placeOn, scaleOf, type View, viewName } from "./BodySvg";

export interface Mark {
  id: string;
  x: number;
  y: number;
  /** Tenderness grade 0–4 sets the size. */
  grade: number;
  /** active: the client's own pain; latent: found only by pressing; earlier: of another visit. */
  kind: "active" | "latent" | "earlier";
  label: string;
  number?: number;
  angle?: number;
}

export interface Zone {
  kind: "usual" | "felt";
  size: number;
  cells: number[][];
}

const Frame = styled.div`
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  justify-items: center;
  height: 100%;
  min-height: 0;
  svg {
    height: 100%;
    max-width: 100%;
    touch-action: none;
    border-radius: 14px;
    outline-offset: -3px;
  }
  svg:focus:not(:focus-visible) {
    outline: none;
  }
  svg[data-live="true"] {
    cursor: crosshair;
  }
  figcaption {
    font-size: 12px;
    color: var(--ink-soft);
    padding-top: 2px;
  }
  .mark {
    cursor: grab;
  }
  .mark:focus {
    outline: none;
  }
  .mark:focus-visible > circle:first-child {
    fill: var(--focus);
    opacity: 0.4;
  }
`;

interface Props {
  view: View;
  marks?: Mark[];
  zones?: Zone[];
  drawn?: Schemas["Drawn"];
  bright?: string;
  selected?: string;
  cursor?: { x: number; y: number };
  onTouch?: (p: { x: number; y: number }) => void;
  onAim?: (p: { x: number; y: number }) => void;
  onSelect?: (id: string) => void;
  onDrop?: (id: string, p: { x: number; y: number }) => void;
  label?: string;
  caption?: ReactNode;
  /** Drawn on the skin and cut off at its edge. */
  inside?: ReactNode;
  /** Drawn between the body and the marks. */
  children?: ReactNode;
}

/** Radius of a mark by tenderness, in shares of a thousandth of the view. */
const radius = (grade: number) => 8 + grade * 2.4;

export function Figure({
  view,
  marks = [],
  zones = [],
  drawn,
  bright,
  selected,
  cursor,
  onTouch,
  onAim,
  onSelect,
  onDrop,
  label,
  caption,
  inside,
  children,
}: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ id: string; x: number; y: number; moved: boolean }>();
  const place = (e: { clientX: number; clientY: number }) => placeOn(svg.current, e);
  const scale = scaleOf(view);
  const step = scale > 1 ? 20 : 4;
  const keys = (e: KeyboardEvent) => {
    if (!onAim || !onTouch) return;
    const width = (svg.current?.viewBox.baseVal.width ?? 492) - 12;
    const at = cursor ?? { x: width / 2, y: 500 };
    const by = e.shiftKey ? step * 5 : step;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const m = moves[e.key];
    if (m) {
      e.preventDefault();
      onAim({ x: Math.min(width, Math.max(0, at.x + m[0])), y: Math.min(1000, Math.max(0, at.y + m[1])) });
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      onTouch(at);
    }
  };
  return (
    <Frame as="figure" style={{ margin: 0 }}>
      <BodySvg
        svg={svg}
        view={view}
        drawn={drawn}
        bright={bright}
        inside={inside}
        data-live={!!onTouch}
        tabIndex={onTouch ? 0 : undefined}
        role={onTouch ? "application" : "img"}
        aria-label={
          label ??
          (onTouch
            ? `${viewName[view]} of the body. Arrow keys move the aim, Enter marks.`
            : `${viewName[view]} of the body with ${marks.length} points`)
        }
        onKeyDown={keys}
        onPointerDown={(e) => {
          if (onTouch && !(e.target as Element).closest(".mark")) onTouch(place(e));
        }}
        onPointerMove={(e) => {
          if (!drag || !onDrop) return;
          const p = place(e);
          setDrag({ ...drag, ...p, moved: drag.moved || Math.hypot(p.x - drag.x, p.y - drag.y) > 2 });
        }}
        onPointerUp={(e) => {
          if (drag?.moved && onDrop) onDrop(drag.id, place(e));
          setDrag(undefined);
        }}
      >
        {children}
        {zones.map((z) => (
          <g key={z.kind} aria-hidden opacity={0.85}>
            {z.kind === "usual"
              ? z.cells.map(([x, y]) => (
                  <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.2} fill="var(--usual)" />
                ))
              : z.cells.map(([x = 0, y = 0]) => (
                  <path
                    key={`${x},${y}`}
                    d={`M${x - z.size * 0.36},${y + z.size * 0.36}L${x + z.size * 0.36},${y - z.size * 0.36}`}
                    stroke="var(--felt)"
                    strokeWidth={z.size * 0.2}
                    strokeLinecap="round"
                  />
                ))}
          </g>
        ))}
        {marks.map((m) => {
          const at = drag?.id === m.id ? drag : m;
          const r = radius(m.grade) * scale;
          // A lens, laid along the fibre: filled when active, hollow when latent.
          const lens = `M0,${-r * 1.5}C${r * 1.15},${-r * 0.6} ${r * 1.15},${r * 0.6} 0,${r * 1.5}C${-r * 1.15},${r * 0.6} ${-r * 1.15},${-r * 0.6} 0,${-r * 1.5}Z`;
          const early = m.kind === "earlier";
          return (
            <g
              key={m.id}
              className="mark"
              transform={`translate(${at.x} ${at.y})`}
              data-mark={m.id}
              role={onSelect ? "button" : "img"}
              tabIndex={onSelect ? 0 : undefined}
              aria-label={m.label}
              aria-pressed={onSelect ? selected === m.id : undefined}
              onKeyDown={(e) => {
                if (onSelect && (e.key === "Enter" || e.key === " ")) {
                  e.preventDefault();
                  e.stopPropagation();
                  onSelect(m.id);
                }
              }}
              onPointerDown={(e) => {
                e.stopPropagation();
                onSelect?.(m.id);
                if (onDrop && !early) {
                  svg.current?.setPointerCapture(e.pointerId);
                  setDrag({ id: m.id, x: m.x, y: m.y, moved: false });
                }
              }}
            >
              <circle
                r={r * 1.9 + 3 * scale}
                fill={selected === m.id ? "var(--point)" : "transparent"}
                opacity={0.18}
              />
              <g transform={`rotate(${m.angle ?? 0})`}>
                <path
                  d={lens}
                  fill={m.kind === "active" ? "var(--point)" : "var(--card)"}
                  fillOpacity={early ? 0.35 : 1}
                  stroke="var(--point)"
                  strokeWidth={1.8 * scale}
                  strokeDasharray={early ? `${2.4 * scale} ${2 * scale}` : undefined}
                />
                {m.kind === "latent" && <circle r={1.6 * scale} fill="var(--point)" />}
              </g>
              {m.number !== undefined && (
                <text
                  x={r * 1.35 + 4 * scale}
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
        })}
        {cursor && (
          <g
            transform={`translate(${cursor.x} ${cursor.y})`}
            pointerEvents="none"
            fill="none"
            stroke="var(--point)"
            strokeWidth={1.6 * scale}
          >
            <circle r={11 * scale} strokeDasharray={`${4 * scale} ${3 * scale}`} />
            <circle r={1.8 * scale} fill="var(--point)" stroke="none" />
          </g>
        )}
      </BodySvg>
      <figcaption>{caption ?? viewName[view]}</figcaption>
    </Frame>
  );
}
