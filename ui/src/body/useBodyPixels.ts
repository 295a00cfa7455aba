// How tall the whole body is on screen, as its pane changes.
import { type RefObject, useLayoutEffect, useState } from "react";
import type { Box } from "./zoom";

/** Of a drawing that is there yet. */
export function useBodyPixels(svg: RefObject<SVGSVGElement | null>, box: Box, there: boolean): number {
  const { width, height } = box;
  const [pixels, setPixels] = useState(0);
  useLayoutEffect(() => {
    const pane = svg.current;
    if (!pane || !there) return;
    const measure = () =>
      setPixels(Math.round(height * Math.min(pane.clientWidth / width, pane.clientHeight / height)));
    const seen = new ResizeObserver(measure);
    seen.observe(pane);
    measure();
    return () => seen.disconnect();
  }, [svg, width, height, there]);
  return pixels;
}
