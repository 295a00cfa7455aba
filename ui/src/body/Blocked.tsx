// Places that the screening blocks, hatched, and the same on every body view.
import { useMemo } from "react";
import type { Schemas } from "../api/client";
import type { Core } from "../core/core";
import { useAsk } from "../core/useAsk";
import type { View } from "./views";

export function Blocked({ core, view, places }: { core: Core; view: View; places: Schemas["Place"][] }) {
  const regions = places.map((p) => ({ region: p.region, side: p.side }));
  const c = useAsk(core, "cells", places.length ? { view, regions } : undefined);
  const d = useMemo(() => {
    if (!c) return "";
    const h = c.size * 0.5;
    // Two short strokes a cell, falling to the left: no other mark does.
    return c.cells
      .map(([x = 0, y = 0]) => `M${x - h},${y - h}L${x + h},${y + h}M${x - h},${y}L${x},${y + h}`)
      .join("");
  }, [c]);
  return d ? (
    <path
      d={d}
      aria-hidden
      fill="none"
      stroke="var(--stop)"
      strokeWidth={1.2}
      opacity={0.75}
      vectorEffect="non-scaling-stroke"
      pointerEvents="none"
      data-blocked
    />
  ) : null;
}
