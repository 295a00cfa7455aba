// Painting by keys: arrows move, Space paints, Enter keeps the brush down.
import { type KeyboardEvent, useState } from "react";
import { type Cell, type Lattice, nearest, type Place } from "./lattice";

const moves: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export function useKeyBrush(
  lattice: Lattice | undefined,
  /** Where the cursor begins. */
  middle: () => Place,
  onMove: (c: Cell) => void,
  onPaint: (c: Cell) => void,
) {
  const [cursor, setCursor] = useState<Cell>();
  const [down, setDown] = useState(false);
  const keys = (e: KeyboardEvent) => {
    const m = moves[e.key];
    const at = lattice && (cursor ?? nearest(lattice, middle()) ?? lattice.cells[0]);
    if (!at || (!m && e.key !== " " && e.key !== "Enter")) return;
    e.preventDefault();
    if (!m) {
      setCursor(at);
      if (e.key === "Enter") setDown(!down);
      onPaint(at);
      return;
    }
    const n = (e.shiftKey ? 6 : 1) * lattice.size;
    const to = nearest(lattice, { x: at.x + m[0] * n, y: at.y + m[1] * n }) ?? at;
    setCursor(to);
    onMove(to);
    if (down) onPaint(to);
  };
  return { cursor, down, keys, lift: () => setDown(false) };
}
