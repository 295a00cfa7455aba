// One finger moves what is shown, where it does nothing else; two bring it
// closer.
import { type PointerEvent, type RefObject, useRef } from "react";
import { placeOn } from "./views";
import { type Box, closer, moved, type Zoom } from "./zoom";

interface Options {
  /** Whether one finger moves what is shown. */
  drags: boolean;
  /** Second touch: cancels the gesture of the first. */
  onSecondFinger?: () => void;
}

type Pixels = { clientX: number; clientY: number };

/** So many pixels of a drag are still a touch. */
const still = 6;

/** Whether a finger has gone farther than a touch does. */
export const isDrag = (from: Pixels, to: Pixels) =>
  Math.hypot(to.clientX - from.clientX, to.clientY - from.clientY) > still;

export function useFingers(
  svg: RefObject<SVGSVGElement | null>,
  box: Box,
  z: Zoom,
  change: (to: (z: Zoom) => Zoom) => void,
  { drags, onSecondFinger }: Options,
) {
  const fingers = useRef(new Map<number, Pixels>());
  const pans = useRef(false);
  const began = useRef<Pixels>(undefined);
  const dragged = useRef(false);

  const down = (e: PointerEvent) => {
    fingers.current.set(e.pointerId, e);
    if (fingers.current.size === 1) {
      began.current = e;
      // What begins on a mark is the mark's.
      dragged.current = !!(e.target as Element).closest(".mark");
      pans.current = drags && !dragged.current;
    } else {
      dragged.current = true;
      onSecondFinger?.();
      e.stopPropagation();
    }
  };
  const move = (e: PointerEvent) => {
    const before = fingers.current.get(e.pointerId);
    if (!before) return;
    const far = isDrag(began.current ?? e, e);
    const two = fingers.current.size > 1;
    if (two) e.stopPropagation();
    else if (!pans.current || z.k === 1 || !(far || dragged.current)) return;
    dragged.current = true;
    const old = between([...fingers.current.values()]);
    fingers.current.set(e.pointerId, e);
    const now = between([...fingers.current.values()]);
    const a = placeOn(svg.current, old.middle);
    const b = placeOn(svg.current, now.middle);
    change((z) => {
      const next = moved(z, { x: b.x - a.x, y: b.y - a.y }, box);
      return two && old.apart ? closer(next, now.apart / old.apart, a, box) : next;
    });
  };
  const up = (e: PointerEvent) => {
    if (fingers.current.size > 1) e.stopPropagation();
    fingers.current.delete(e.pointerId);
  };
  /** Whether what has just been let go was a drag, not a touch. */
  return { down, move, up, dragged: () => dragged.current };
}

/** The middle of the fingers, and how far they are apart. */
function between(list: Pixels[]) {
  const [a = { clientX: 0, clientY: 0 }, b = a] = list;
  return {
    middle: { clientX: (a.clientX + b.clientX) / 2, clientY: (a.clientY + b.clientY) / 2 },
    apart: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
  };
}
