// Closer and farther: by wheel, two fingers, keys; one finger moves what is
// shown where it does nothing else.
import { type KeyboardEvent, type MouseEvent, type RefObject, useEffect, useRef, useState } from "react";
import { useFingers } from "./useFingers";
import { useFit } from "./useFit";
import { placeOn } from "./views";
import { type Box, closer, type Place, whole, type Zoom } from "./zoom";

interface Options {
  /** Whether one finger moves what is shown. */
  drags: boolean;
  /** What is chosen: the body comes to it. */
  fit?: Box;
  /** A second finger has come: what the first one began is not meant. */
  onSecondFinger?: () => void;
}

export function useZoom(
  svg: RefObject<SVGSVGElement | null>,
  box: Box,
  { drags, fit, onSecondFinger }: Options,
) {
  const [zoom, setZoom] = useState<Zoom>();
  const z = zoom ?? whole(box);
  const change = (to: (z: Zoom) => Zoom) => setZoom((old) => to(old ?? whole(box)));
  const by = (factor: number, at?: Place) => change((old) => closer(old, factor, at ?? old, box));
  useFit(svg, fit, box, z, setZoom);
  useWheel(svg, (e) => {
    // There is nothing farther than the whole: there the page scrolls.
    if (z.k === 1 && e.deltaY > 0) return;
    e.preventDefault();
    by(Math.exp(-e.deltaY / 400), placeOn(svg.current, e));
  });
  const { down, move, up, dragged } = useFingers(svg, box, z, change, { drags, onSecondFinger });
  const keys = (e: KeyboardEvent) => {
    if (e.key === "+" || e.key === "=") by(1.5);
    else if (e.key === "-") by(1 / 1.5);
    else if (e.key === "0") setZoom(undefined);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const twice = (e: MouseEvent) => {
    if (drags && !(e.target as Element).closest(".mark")) by(2, placeOn(svg.current, e));
  };
  return {
    zoom: z,
    by,
    toWhole: () => setZoom(undefined),
    /** Whether what has just been let go was a drag, not a touch. */
    wasDrag: dragged,
    fingers: {
      onPointerDownCapture: down,
      onPointerMoveCapture: move,
      onPointerUpCapture: up,
      onPointerCancelCapture: up,
      onKeyDownCapture: keys,
      onDoubleClick: twice,
    },
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
