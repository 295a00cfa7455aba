// A pain drawing on the skin. Kinds are told apart by texture as well as by
// colour, intensity by strength.
import { memo, useMemo } from "react";
import type { Drawing, Kind, Paint } from "./drawing";
import { cellId, hexagon, type Lattice, useLattice } from "./lattice";
import type { View } from "./views";

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

/** What is painted, drawn as one path a kind and intensity. */
export const Painted = memo(function Painted({
  view,
  lattice,
  drawing,
}: {
  view: View;
  lattice: Lattice;
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
