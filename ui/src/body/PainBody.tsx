// One view of the body to paint on, with finger, mouse or keys. A drawing is
// cells of the core's lattice; kinds are told apart by texture as well as by
// colour, intensity by strength.
import { useQuery } from "@tanstack/react-query";
import {
  type KeyboardEvent,
  memo,
  type PointerEvent,
  type ReactNode,
  useMemo,
  useRef,
  useState,
} from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../api/client";
import { plain } from "../parts/words";
import { BodySvg, placeOn, type View, viewName } from "./BodySvg";
import type { Drawing, Kind, Paint } from "./drawing";

export function useLattice(view: View) {
  return useQuery({
    queryKey: ["lattice", view],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.GET("/api/figure/{view}/lattice", { params: { path: { view } } })),
  });
}

export type Cell = Schemas["LatticeCell"];
export const cellId = (view: View, c: Cell) => `${view}:${c.q},${c.r}`;

const ink: Record<Kind, string> = {
  ache: "var(--ache)",
  sharp: "var(--sharp)",
  burning: "var(--burning)",
  "numb-tingling": "var(--numb)",
  headache: "var(--headache)",
};

/** The texture of a kind in one cell. */
function texture(kind: Kind, x: number, y: number, s: number): string {
  const h = s * 0.3;
  switch (kind) {
    case "ache": // a dot
      return `M${x - h * 0.5},${y}a${h * 0.5},${h * 0.5} 0 1 0 ${h},0a${h * 0.5},${h * 0.5} 0 1 0 ${-h},0`;
    case "sharp": // a stroke
      return `M${x - h},${y + h}L${x + h},${y - h}`;
    case "burning": // a wave
      return `M${x - h * 1.2},${y}q${h * 0.6},${-h * 1.3} ${h * 1.2},0t${h * 1.2},0`;
    case "numb-tingling": // a ring
      return `M${x - h},${y}a${h},${h} 0 1 0 ${2 * h},0a${h},${h} 0 1 0 ${-2 * h},0`;
    case "headache": // a bow
      return `M${x - h},${y + h * 0.6}q${h},${-h * 1.9} ${2 * h},0`;
  }
}

const hexagon = (x: number, y: number, s: number) => {
  const w = s / 2,
    a = s / Math.sqrt(3);
  return `M${x},${y - a}l${w},${a / 2}v${a}l${-w},${a / 2}l${-w},${-a / 2}v${-a}z`;
};

/** What is painted, drawn as one path a kind and intensity. */
export const Painted = memo(function Painted({
  view,
  lattice,
  drawing,
}: {
  view: View;
  lattice: Schemas["Lattice"];
  drawing: Drawing;
}) {
  const groups = useMemo(() => {
    const out = new Map<string, { p: Paint; fill: string; mark: string }>();
    for (const c of lattice.cells) {
      const p = drawing.get(cellId(view, c));
      if (!p) continue;
      const key = `${p.kind}${p.intensity}`;
      const g = out.get(key) ?? { p, fill: "", mark: "" };
      g.fill += hexagon(c.x, c.y, lattice.size);
      g.mark += texture(p.kind, c.x, c.y, lattice.size);
      out.set(key, g);
    }
    return [...out.values()];
  }, [view, lattice, drawing]);
  return (
    <g aria-hidden pointerEvents="none">
      {groups.map(({ p, fill, mark }) => (
        <g key={p.kind + p.intensity}>
          <path d={fill} fill={ink[p.kind]} opacity={0.12 + p.intensity * 0.045} />
          <path
            d={mark}
            fill={p.kind === "ache" ? ink[p.kind] : "none"}
            stroke={ink[p.kind]}
            strokeWidth={lattice.size * (0.1 + p.intensity * 0.008)}
            strokeLinecap="round"
          />
        </g>
      ))}
    </g>
  );
});

/** A drawing to look at, on any figure. */
export function PaintedOn({ view, drawing }: { view: View; drawing: Drawing }) {
  const { data } = useLattice(view);
  return data ? <Painted view={view} lattice={data} drawing={drawing} /> : null;
}

/** Two drawings laid over each other: what is new, what is gone, what stayed. */
export function Compared({ view, before, after }: { view: View; before: Drawing; after: Drawing }) {
  const { data: lattice } = useLattice(view);
  const paths = useMemo(() => {
    const out = { stayed: "", fresh: "", gone: "" };
    for (const c of lattice?.cells ?? []) {
      const id = cellId(view, c);
      const was = before.has(id),
        is = after.has(id);
      if (was && is) out.stayed += hexagon(c.x, c.y, lattice?.size ?? 0);
      else if (is) out.fresh += hexagon(c.x, c.y, lattice?.size ?? 0);
      else if (was) out.gone += hexagon(c.x, c.y, lattice?.size ?? 0);
    }
    return out;
  }, [view, lattice, before, after]);
  const s = lattice?.size ?? 7;
  return (
    <g aria-hidden>
      <path
        d={paths.gone}
        fill="var(--card)"
        fillOpacity={0.55}
        stroke="var(--other)"
        strokeWidth={s * 0.12}
        strokeDasharray={`${s * 0.3} ${s * 0.2}`}
      />
      <path d={paths.stayed} fill="var(--ache)" opacity={0.5} />
      <path d={paths.fresh} fill="var(--sharp)" opacity={0.75} stroke="var(--sharp)" strokeWidth={s * 0.1} />
    </g>
  );
}

const Frame = styled.figure`
  margin: 0;
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
    cursor: crosshair;
    outline-offset: -3px;
  }
  svg:focus:not(:focus-visible) {
    outline: none;
  }
  figcaption {
    font-size: 12px;
    color: var(--ink-soft);
    padding-top: 2px;
  }
`;

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
  const stroke = useRef<Set<string> | undefined>(undefined);
  const last = useRef<{ x: number; y: number } | undefined>(undefined);
  const [preview, setPreview] = useState<ReadonlySet<string>>();
  const [cursor, setCursor] = useState<Cell>();
  const [down, setDown] = useState(false);
  const shown = useMemo(() => {
    if (!preview?.size) return drawing;
    const out = new Map(drawing);
    for (const c of preview) {
      if (brush.intensity === 0) out.delete(c);
      else out.set(c, brush);
    }
    return out;
  }, [drawing, preview, brush]);
  if (!lattice) return <Frame aria-busy />;

  const nearest = (p: { x: number; y: number }) => {
    let best: Cell | undefined;
    let d = lattice.size * 1.2;
    for (const c of lattice.cells) {
      const k = Math.hypot(c.x - p.x, c.y - p.y);
      if (k < d) [best, d] = [c, k];
    }
    return best;
  };
  const under = (p: { x: number; y: number }) => {
    const one = nearest(p);
    if (!one) return [];
    const reach = size * lattice.size + 0.1;
    return lattice.cells
      .filter((c) => Math.hypot(c.x - one.x, c.y - one.y) <= reach)
      .map((c) => cellId(view, c));
  };
  const drag = (e: PointerEvent) => {
    if (!stroke.current) return;
    const to = placeOn(svg.current, e);
    const from = last.current ?? to;
    const steps = Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / (lattice.size * 0.7)) || 1;
    for (let i = 1; i <= steps; i++)
      for (const c of under({
        x: from.x + ((to.x - from.x) * i) / steps,
        y: from.y + ((to.y - from.y) * i) / steps,
      }))
        stroke.current.add(c);
    last.current = to;
    setPreview(new Set(stroke.current));
  };
  const finish = () => {
    const cells = [...(stroke.current ?? [])];
    stroke.current = undefined;
    last.current = undefined;
    setPreview(undefined);
    if (cells.length) onStroke(cells);
  };
  const words = (c: Cell) =>
    `${plain(lattice.regions[c.g] ?? "")}${c.s === "midline" ? "" : `, ${c.s}`}${drawing.has(cellId(view, c)) ? ", painted" : ""}`;
  const keys = (e: KeyboardEvent) => {
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const m = moves[e.key];
    const at =
      cursor ?? nearest({ x: (svg.current?.viewBox.baseVal.width ?? 480) / 2, y: 400 }) ?? lattice.cells[0];
    if (!at) return;
    if (m) {
      e.preventDefault();
      const n = (e.shiftKey ? 6 : 1) * lattice.size;
      const to = nearest({ x: at.x + m[0] * n, y: at.y + m[1] * n }) ?? at;
      setCursor(to);
      onPlace?.(words(to));
      if (down) onStroke(under(to));
    } else if (e.key === " " || e.key === "Enter") {
      e.preventDefault();
      setCursor(at);
      if (e.key === "Enter") setDown(!down);
      onStroke(under(at));
    }
  };
  return (
    <Frame>
      <BodySvg
        svg={svg}
        view={view}
        tabIndex={0}
        role="application"
        inside={<Painted view={view} lattice={lattice} drawing={shown} />}
        data-cells={shown.size}
        aria-label={`${viewName[view]} of the body to paint on. Arrow keys move, Space paints, Enter keeps the brush down.`}
        onKeyDown={keys}
        onBlur={() => setDown(false)}
        onPointerDown={(e) => {
          svg.current?.setPointerCapture(e.pointerId);
          stroke.current = new Set();
          drag(e);
        }}
        onPointerMove={drag}
        onPointerUp={finish}
        onPointerCancel={finish}
      >
        {children}
        {cursor && (
          <g
            transform={`translate(${cursor.x} ${cursor.y})`}
            pointerEvents="none"
            fill="none"
            stroke="var(--focus)"
            strokeWidth={lattice.size * 0.25}
          >
            <circle
              r={lattice.size * (size + 0.9)}
              strokeDasharray={down ? undefined : `${lattice.size * 0.5} ${lattice.size * 0.4}`}
            />
          </g>
        )}
      </BodySvg>
      <figcaption>{viewName[view]}</figcaption>
    </Frame>
  );
}
