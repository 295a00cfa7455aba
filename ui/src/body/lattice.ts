// The core's lattice of a view: the cells of which drawings are made.
import { useQuery } from "@tanstack/react-query";
import { api, must, type Schemas } from "../api/client";
import { plain } from "../parts/words";
import { figureVersion } from "./figurePath";
import { type View } from "./views";

export type Cell = Schemas["LatticeCell"];
export type Lattice = Schemas["Lattice"];
export interface Place {
  x: number;
  y: number;
}

export function useLattice(view: View) {
  return useQuery({
    queryKey: ["lattice", view],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      must(
        api.GET("/api/figure/{view}/lattice", {
          params: { path: { view }, query: { figure: figureVersion } },
        }),
      ),
  });
}

export const cellId = (view: View, c: Cell) => `${view}:${c.q},${c.r}`;

/** "Lower calf, left". */
export const placeName = (lattice: Lattice, c: Cell) =>
  `${plain(lattice.regions[c.g] ?? "")}${c.s === "midline" ? "" : `, ${c.s}`}`;

/** The cell at a place, or a little beside it. */
export function nearest(lattice: Lattice, p: Place): Cell | undefined {
  let best: Cell | undefined;
  let d = lattice.size * 1.2;
  for (const c of lattice.cells) {
    const k = Math.hypot(c.x - p.x, c.y - p.y);
    if (k < d) [best, d] = [c, k];
  }
  return best;
}

/** The cells under a brush of so many cells around the middle one. */
export function under(lattice: Lattice, p: Place, size: number): Cell[] {
  const one = nearest(lattice, p);
  if (!one) return [];
  const reach = size * lattice.size + 0.1;
  return lattice.cells.filter((c) => Math.hypot(c.x - one.x, c.y - one.y) <= reach);
}

/** Places along a line, so near that no cell is left out. */
export function along(lattice: Lattice, from: Place, to: Place): Place[] {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const steps = Math.ceil(Math.hypot(dx, dy) / (lattice.size * 0.7)) || 1;
  return Array.from({ length: steps }, (_, i) => {
    const share = (i + 1) / steps;
    return { x: from.x + dx * share, y: from.y + dy * share };
  });
}

export const hexagon = (x: number, y: number, s: number) => {
  const w = s / 2;
  const a = s / Math.sqrt(3);
  return `M${x},${y - a}l${w},${a / 2}v${a}l${-w},${a / 2}l${-w},${-a / 2}v${-a}z`;
};
