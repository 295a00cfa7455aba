// The cells of which a drawing is made, once the body is close enough to tell
// them apart.
import { memo, useContext, useMemo } from "react";
import { hexagon, type Lattice as Cells } from "./lattice";
import { Closeness } from "./zoom";

/** From here on a cell is as wide as a small finger on a tablet. */
const tellable = 2.5;

export function Lattice({ cells }: { cells: Cells }) {
  const close = useContext(Closeness);
  return close >= tellable ? <Lines cells={cells} width={0.7 / close} /> : null;
}

const Lines = memo(function Lines({ cells, width }: { cells: Cells; width: number }) {
  const path = useMemo(() => cells.cells.map((c) => hexagon(c.x, c.y, cells.size)).join(""), [cells]);
  return (
    <path
      data-lattice
      d={path}
      fill="none"
      stroke="var(--skin-line)"
      strokeWidth={width}
      opacity={0.5}
      pointerEvents="none"
    />
  );
});
