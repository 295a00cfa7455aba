// How wide something is on screen, and when that changes.
import { type RefObject, startTransition, useEffect, useState } from "react";

/** In pixels; undefined before it stands. */
export function useWidth(of: RefObject<HTMLElement | null>) {
  const [width, setWidth] = useState<number>();
  useEffect(() => {
    const element = of.current;
    if (!element) return;
    // Heard when the page has been laid out: asked before, it would be laid out for this alone.
    // What hangs on it may be much, and is drawn piece by piece.
    const observer = new ResizeObserver(() =>
      startTransition(() => setWidth(Math.round(element.clientWidth))),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [of]);
  return width;
}
