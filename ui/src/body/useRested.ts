// While a body is on its way it is not drawn anew: the drawing it had at rest is
// moved and stretched, which a screen does in a frame whatever lies on it. When
// it has come to rest it is drawn as it is seen.
import { type RefObject, useEffect, useLayoutEffect, useState } from "react";
import { type Box, whole, windowOf, type Zoom } from "./zoom";

const stillMS = 140;

const same = (a: Zoom, b: Zoom) => a.k === b.k && a.x === b.x && a.y === b.y;

/** The zoom at which the body is drawn. */
export function useRested(svg: RefObject<SVGSVGElement | null>, zoom: Zoom, box: Box): Zoom {
  const [kept, setKept] = useState(zoom);
  const { k, x, y } = zoom;
  useEffect(() => {
    const rest = setTimeout(() => setKept({ k, x, y }), stillMS);
    return () => clearTimeout(rest);
  }, [k, x, y]);
  // The whole is drawn at once: it is what everything begins from.
  const rested = zoom.k === 1 ? zoom : kept.k === 1 ? whole(box) : kept;
  useLayoutEffect(() => {
    if (svg.current)
      svg.current.style.transform = same(rested, zoom) ? "" : stretched(svg.current, rested, zoom, box);
  });
  return rested;
}

/** How the drawing at rest is moved and stretched to be seen at another zoom. */
function stretched(svg: SVGSVGElement, from: Zoom, to: Zoom, box: Box): string {
  const [, , width, height] = windowOf(from, box);
  const pixels = Math.min(svg.clientWidth / width, svg.clientHeight / height);
  const by = to.k / from.k;
  const right = (from.x - to.x) * pixels * by;
  const down = (from.y - to.y) * pixels * by;
  return `translate(${right}px, ${down}px) scale(${by})`;
}
