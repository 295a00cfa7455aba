// Closer and farther: by wheel, two fingers, keys; one finger moves what is
// shown where it does nothing else.
import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useRef, useState } from "react";
import { placeOn } from "./views";
import { type Box, closer, moved, type Place, whole, type Zoom } from "./zoom";

interface Options {
  /** Whether one finger moves what is shown. */
  drags: boolean;
  /** A second finger has come: what the first one began is not meant. */
  onSecondFinger?: () => void;
}

/** So many pixels of a drag are still a touch. */
const still = 6;

export function useZoom(svg: RefObject<SVGSVGElement | null>, box: Box, { drags, onSecondFinger }: Options) {
  const [zoom, setZoom] = useState<Zoom>();
  const z = zoom ?? whole(box);
  const change = (to: (z: Zoom) => Zoom) => setZoom((old) => to(old ?? whole(box)));
  const by = (factor: number, at?: Place) => change((old) => closer(old, factor, at ?? old, box));
  useWheel(svg, (e) => {
    // There is nothing farther than the whole: there the page scrolls.
    if (z.k === 1 && e.deltaY > 0) return;
    e.preventDefault();
    by(Math.exp(-e.deltaY / 400), placeOn(svg.current, e));
  });
  const fingers = useRef(new Map<number, { clientX: number; clientY: number }>());
  const pans = useRef(false);
  const began = useRef<{ clientX: number; clientY: number }>(undefined);
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
    const from = began.current ?? e;
    const far = Math.hypot(e.clientX - from.clientX, e.clientY - from.clientY) > still;
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
  const keys = (e: KeyboardEvent) => {
    if (e.key === "+" || e.key === "=") by(1.5);
    else if (e.key === "-") by(1 / 1.5);
    else if (e.key === "0") setZoom(undefined);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return {
    zoom: z,
    by,
    toWhole: () => setZoom(undefined),
    /** Whether what has just been let go was a drag, not a touch. */
    wasDrag: () => dragged.current,
    fingers: {
      onPointerDownCapture: down,
      onPointerMoveCapture: move,
      onPointerUpCapture: up,
      onPointerCancelCapture: up,
      onKeyDownCapture: keys,
    },
  };
}

/** The middle of the fingers, and how far they are apart. */
function between(list: { clientX: number; clientY: number }[]) {
  const [a = { clientX: 0, clientY: 0 }, b = a] = list;
  return {
    middle: { clientX: (a.clientX + b.clientX) / 2, clientY: (a.clientY + b.clientY) / 2 },
    apart: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
  };
}

/** Listens so that the page can be kept from scrolling. */
function useWheel(svg: RefObject<SVGSVGElement | null>, turn: (e: WheelEvent) => void) {
  const latest = useRef(turn);
  latest.current = turn;
  useEffect(() => {
    const on = svg.current?.parentElement;
    if (!on) return;
    const wheel = (e: WheelEvent) => latest.current(e);
    on.addEventListener("wheel", wheel, { passive: false });
    return () => on.removeEventListener("wheel", wheel);
  });
}
