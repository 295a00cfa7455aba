import { useMemo } from "react";
import type { Drawing } from "./drawing";
import { cellId, hexagon, useLattice } from "./lattice";
import type { View } from "./views";

/** Two drawings laid over each other: what is new, what is gone, what stayed. */
export function Compared({ view, before, after }: { view: View; before: Drawing; after: Drawing }) {
  const { data: lattice } = useLattice(view);
  const paths = useMemo(() => {
    const out = { stayed: "", fresh: "", gone: "" };
    for (const c of lattice?.cells ?? []) {
      const id = cellId(view, c);
      const was = before.has(id);
      const is = after.has(id);
      if (was && is) out.stayed += hexagon(c.x, c.y, lattice?.size ?? 0);
      else if (is) out.fresh += hexagon(c.x, c.y, lattice?.size ?? 0);
      else if (was) out.gone += hexagon(c.x, c.y, lattice?.size ?? 0);
    }
    return out;
  }, [view, lattice, before, after]);
  const s = lattice?.size ?? 7;
  return (
    <g aria-hidden>
      <path
        d={paths.gone}
        fill="var(--card)"
        fillOpacity={0.55}
        stroke="var(--other)"
        strokeWidth={s * 0.12}
        strokeDasharray={`${s * 0.3} ${s * 0.2}`}
      />
      <path d={paths.stayed} fill="var(--ache)" opacity={0.5} />
      <path d={paths.fresh} fill="var(--sharp)" opacity={0.75} stroke="var(--sharp)" strokeWidth={s * 0.1} />
    </g>
  );
}
