// A mark is selected by a touch and moved by dragging it.
import { type PointerEvent, type RefObject, useRef, useState } from "react";
import type { Mark } from "./Mark";
import { isDrag } from "./useFingers";
import { placeOn } from "./views";
import type { Place } from "./zoom";

interface Held {
  id: string;
  pointer: number;
  from: { clientX: number; clientY: number };
  /** From the pointer to the mark, which keeps its place beneath the finger. */
  off: Place;
  moved: boolean;
}

interface Options {
  onSelect?: (id: string) => void;
  onDrop?: (id: string, p: Place) => void;
}

export function useDrag(svg: RefObject<SVGSVGElement | null>, { onSelect, onDrop }: Options) {
  // Not only what is shown: a finger may move and leave before that is drawn.
  const held = useRef<Held>(undefined);
  const [drag, setDrag] = useState<Place & { id: string }>();
  const place = (e: PointerEvent, { off }: Held) => {
    const p = placeOn(svg.current, e);
    return { x: p.x + off.x, y: p.y + off.y };
  };
  const grab = (e: PointerEvent, m: Mark) => {
    e.stopPropagation();
    onSelect?.(m.id);
    if (!onDrop || m.kind === "earlier") return;
    svg.current?.setPointerCapture(e.pointerId);
    const p = placeOn(svg.current, e);
    held.current = {
      id: m.id,
      pointer: e.pointerId,
      from: { clientX: e.clientX, clientY: e.clientY },
      off: { x: m.x - p.x, y: m.y - p.y },
      moved: false,
    };
  };
  const move = (e: PointerEvent) => {
    const h = held.current;
    if (h?.pointer !== e.pointerId) return;
    h.moved ||= isDrag(h.from, e);
    if (h.moved) setDrag({ id: h.id, ...place(e, h) });
  };
  /** What was begun was not meant. */
  const leave = () => {
    held.current = undefined;
    setDrag(undefined);
  };
  const drop = (e: PointerEvent) => {
    const h = held.current;
    leave();
    if (h?.moved) onDrop?.(h.id, place(e, h));
  };
  return { drag, grab, move, drop, leave };
}
