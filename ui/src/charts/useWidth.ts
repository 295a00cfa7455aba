// How wide something is on screen, and when that changes.
import { type RefObject, useLayoutEffect, useState } from "react";

/** In pixels; undefined before it stands. */
export function useWidth(of: RefObject<HTMLElement | null>) {
  const [width, setWidth] = useState<number>();
  useLayoutEffect(() => {
    const element = of.current;
    if (!element) return;
    const measure = () => setWidth(Math.round(element.clientWidth));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [of]);
  return width;
}
