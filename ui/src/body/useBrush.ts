// Painting by pointer: a stroke is shown as it grows and handed on when it ends.
import { type PointerEvent, type RefObject, useRef, useState } from "react";
import { along, cellId, type Lattice, type Place, under } from "./lattice";
import { placeOn, type View } from "./views";

export function useBrush(
  svg: RefObject<SVGSVGElement | null>,
  view: View,
  lattice: Lattice | undefined,
  size: number,
  onStroke: (cells: string[]) => void,
) {
  const stroke = useRef<Set<string>>(undefined);
  const last = useRef<Place>(undefined);
  /** The cells of the stroke under way. */
  const [preview, setPreview] = useState<ReadonlySet<string>>();
  const drag = (e: PointerEvent) => {
    if (!stroke.current || !lattice) return;
    const to = placeOn(svg.current, e);
    for (const p of along(lattice, last.current ?? to, to))
      for (const c of under(lattice, p, size)) stroke.current.add(cellId(view, c));
    last.current = to;
    setPreview(new Set(stroke.current));
  };
  const begin = (e: PointerEvent) => {
    svg.current?.setPointerCapture(e.pointerId);
    stroke.current = new Set();
    drag(e);
  };
  /** What was begun was not meant. */
  const abort = () => {
    stroke.current = undefined;
    last.current = undefined;
    setPreview(undefined);
  };
  const finish = () => {
    const cells = [...(stroke.current ?? [])];
    abort();
    if (cells.length) onStroke(cells);
  };
  return { preview, begin, drag, finish, abort };
}
