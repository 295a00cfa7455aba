// Brings what is chosen near, with a calm movement, and goes back to the whole
// when nothing is chosen any more and nobody has moved since.
import { type RefObject, useEffect, useRef } from "react";
import { type Box, fitted, halfway, whole, type Zoom } from "./zoom";

const movementMS = 320;

const still = () => !!globalThis.matchMedia?.("(prefers-reduced-motion: reduce)").matches;

/** Already zoomed in this far, with the middle of the part in sight. */
function nearer(from: Zoom, to: Zoom, part: Box): boolean {
  const [x, y] = [part.x + part.width / 2, part.y + part.height / 2];
  const half = 240 / from.k;
  return from.k > to.k * 1.05 && Math.abs(x - from.x) < half && Math.abs(y - from.y) < half;
}

/** The shape of a pane, width by height. */
function shapeOf(pane: SVGSVGElement | null) {
  return pane && pane.clientHeight > 0 ? pane.clientWidth / pane.clientHeight : 0;
}

export function useFit(
  svg: RefObject<SVGSVGElement | null>,
  fit: Box | undefined,
  box: Box,
  zoom: Zoom,
  set: (z: Zoom | undefined) => void,
) {
  const now = useRef(zoom);
  now.current = zoom;
  /** Where the last movement led. */
  const led = useRef<Zoom>(undefined);
  /** Still on its way: that is no movement by hand. */
  const going = useRef(false);
  const key = fit && `${fit.x},${fit.y},${fit.width},${fit.height},${box.width}`;
  const latest = useRef({ fit, box, set });
  latest.current = { fit, box, set };
  useEffect(() => {
    const { fit: part, box: all, set: show } = latest.current;
    const from = now.current;
    const moved = led.current && !going.current && Math.abs(from.k - led.current.k) > 0.01;
    if (!part && (!led.current || moved)) return;
    const to = part ? fitted(part, all, shapeOf(svg.current)) : whole(all);
    if (part && nearer(from, to, part)) return;
    led.current = part && to;
    if (still()) return show(to);
    going.current = true;
    const began = performance.now();
    let frame = requestAnimationFrame(function step(at) {
      const share = Math.min(1, Math.max(0, at - began) / movementMS);
      show(halfway(from, to, share * share * (3 - 2 * share)));
      going.current = share < 1;
      if (share < 1) frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [key, svg]);
}
