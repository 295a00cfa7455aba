import type { Schemas } from "../../../api/client";
import type { View } from "../../../body/views";
import { useMarkScale } from "../../../body/zoom";
import type { Core } from "../../../core/core";
import { seenAt, type Spot } from "./spots";

/** The places on the figure: a hollow lozenge where a sign can be touched, full
 * and named where it was seen. */
export function SignSpots({ core, view, state }: { core: Core; view: View; state: Schemas["State"] }) {
  const spots = core.lists.signs.filter((s) => s.view === view);
  const k = useMarkScale(view);
  return (
    <g aria-hidden>
      {spots.map((s) => (
        <Lozenge key={s.name + s.side} s={s} seen={seenAt(state, s)} k={k} />
      ))}
    </g>
  );
}

function Lozenge({ s, seen, k }: { s: Spot; seen: boolean; k: number }) {
  const r = (seen ? 14 : 11) * k;
  return (
    <g transform={`translate(${s.x} ${s.y})`} data-spot={`${s.sign ?? s.measure}:${s.side}`} data-seen={seen}>
      <title>{s.name}</title>
      <path
        d={`M0,${-r}L${r},0L0,${r}L${-r},0Z`}
        fill={seen ? "var(--other)" : "var(--card)"}
        fillOpacity={seen ? 1 : 0.75}
        stroke="var(--other)"
        strokeWidth={2 * k}
      />
      {seen && (
        <path
          d={`M${-4.6 * k},0L${-1.2 * k},${3.8 * k}L${5.2 * k},${-3.8 * k}`}
          fill="none"
          stroke="var(--card)"
          strokeWidth={2.2 * k}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
    </g>
  );
}
