// One view of the body to paint on, with finger, mouse or keys. A drawing is
// cells of the core's lattice.
import { type ReactNode, useMemo, useRef } from "react";
import { BodyFrame } from "./BodyFrame";
import type { Drawing, Paint } from "./drawing";
import { type Cell, cellId, placeName, under, useLattice } from "./lattice";
import { Lattice } from "./Lattice";
import { Painted } from "./Painted";
import { useBrush } from "./useBrush";
import { useKeyBrush } from "./useKeyBrush";
import { ZoomedBody } from "./ZoomedBody";
import { type View, viewName } from "./views";

interface Props {
  view: View;
  drawing: Drawing;
  /** What the brush lays down. */
  brush: Paint;
  /** Radius of the brush in cells; 0 is one cell. */
  size: number;
  onStroke: (cells: string[]) => void;
  onPlace?: (words: string) => void;
  children?: ReactNode;
}

export function PainBody({ view, drawing, brush, size, onStroke, onPlace, children }: Props) {
  const { data: lattice } = useLattice(view);
  const svg = useRef<SVGSVGElement>(null);
  const { preview, begin, drag, finish, abort } = useBrush(svg, view, lattice, size, onStroke);
  const { cursor, down, keys, lift } = useKeyBrush(
    lattice,
    () => middleOf(svg.current),
    (c) => lattice && onPlace?.(placeName(lattice, c) + (drawing.has(cellId(view, c)) ? ", painted" : "")),
    (c) => lattice && onStroke(under(lattice, c, size).map((x) => cellId(view, x))),
  );
  const shown = useMemo(() => laid(drawing, preview, brush), [drawing, preview, brush]);
  if (!lattice) return <BodyFrame aria-busy />;
  return (
    <ZoomedBody
      svg={svg}
      view={view}
      drags={false}
      onSecondFinger={abort}
      tabIndex={0}
      role="application"
      inside={
        <>
          <Lattice cells={lattice} />
          <Painted view={view} lattice={lattice} drawing={shown} />
        </>
      }
      data-live
      data-cells={shown.size}
      aria-label={`${viewName[view]} of the body to paint on. ${howByKeys}`}
      onKeyDown={keys}
      onBlur={lift}
      onPointerDown={begin}
      onPointerMove={drag}
      onPointerUp={finish}
      onPointerCancel={finish}
    >
      {children}
      {cursor && <Cursor at={cursor} cell={lattice.size} size={size} down={down} />}
    </ZoomedBody>
  );
}

const howByKeys =
  "Arrow keys move, Space paints, Enter keeps the brush down, + and − come closer and go back.";

/** A little above the middle of what is shown. */
function middleOf(svg: SVGSVGElement | null) {
  const { x, y, width, height } = svg?.viewBox.baseVal ?? { x: 0, y: 0, width: 480, height: 1000 };
  return { x: x + width / 2, y: y + height * 0.4 };
}

/** The drawing with the stroke under way laid over it. */
function laid(drawing: Drawing, preview: ReadonlySet<string> | undefined, brush: Paint): Drawing {
  if (!preview?.size) return drawing;
  const out = new Map(drawing);
  for (const c of preview) {
    if (brush.intensity === 0) out.delete(c);
    else out.set(c, brush);
  }
  return out;
}

/** Where the keys are; a whole ring while the brush is down. */
function Cursor({ at, cell, size, down }: { at: Cell; cell: number; size: number; down: boolean }) {
  return (
    <circle
      cx={at.x}
      cy={at.y}
      r={cell * (size + 0.9)}
      pointerEvents="none"
      fill="none"
      stroke="var(--focus)"
      strokeWidth={cell * 0.25}
      strokeDasharray={down ? undefined : `${cell * 0.5} ${cell * 0.4}`}
    />
  );
}
