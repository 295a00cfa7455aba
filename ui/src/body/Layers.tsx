// What can be laid on the body: bones, muscles, referral, structures, landmarks.
import type { Schemas } from "../api/client";

type Drawn = Schemas["Drawn"];
interface Look {
  /** A muscle, structure or landmark to bring out. */
  bright?: string;
  k: number;
}

export function Layers({ drawn, clip, ...look }: Look & { drawn: Drawn; clip: string }) {
  return (
    <g aria-hidden>
      <Bones of={drawn.bones} {...look} />
      <g clipPath={clip} stroke="var(--muscle-edge)" fill="none" strokeLinecap="round" strokeLinejoin="round">
        {drawn.strands.map((s, i) => (
          <Strand key={`${s.muscle}${s.side}${i}`} s={s} {...look} />
        ))}
      </g>
      {drawn.zones.map((z) => (
        <Referral key={z.muscle + z.side} z={z} />
      ))}
      <g fill="none" stroke="var(--keep)" strokeLinecap="round" strokeLinejoin="round">
        {drawn.structures.map((s) => (
          <Structure key={s.structure + s.side} s={s} {...look} />
        ))}
      </g>
      {drawn.landmarks.map((l) => (
        <circle
          key={l.id + l.side}
          cx={l.x}
          cy={l.y}
          r={(look.bright === l.id ? 6 : 3.2) * look.k}
          fill="var(--accent)"
          stroke="var(--card)"
          strokeWidth={1.1 * look.k}
        />
      ))}
    </g>
  );
}

function Bones({ of, k }: Look & { of: Drawn["bones"] }) {
  return (
    <g fill="none" stroke="var(--bone)" strokeLinecap="round">
      {of.map((l, i) => (
        <path
          key={`${l.id}${i}`}
          d={l.path}
          strokeWidth={(0.7 + l.weight) * k}
          opacity={0.4 + 0.5 * l.weight}
        />
      ))}
    </g>
  );
}

/** A part of a muscle: tendon, the belly over it, and its fibres. */
function Strand({ s, bright, k }: Look & { s: Drawn["strands"][number] }) {
  const out = bright === s.muscle;
  const opacity = s.faded ? 0.08 : bright && !out ? 0.35 : 1;
  return (
    <g data-muscle={s.muscle} opacity={opacity}>
      {s.sinew && <path d={s.sinew} fill="var(--sinew)" stroke="var(--sinew-edge)" strokeWidth={0.6 * k} />}
      {s.belly && <path d={s.belly} fill="var(--muscle)" strokeWidth={(out ? 1.6 : 0.7) * k} />}
      {s.bands.map((d) => (
        <path key={d} d={d} fill="var(--sinew)" stroke="none" />
      ))}
      {s.fibres.map((d) => (
        <path key={d} d={d} strokeWidth={0.8 * k} opacity={0.45} />
      ))}
    </g>
  );
}

function Referral({ z }: { z: Drawn["zones"][number] }) {
  return (
    <g fill="var(--usual)">
      {z.essential.map(([x, y]) => (
        <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.34} />
      ))}
      {z.spillover.map(([x, y]) => (
        <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.17} />
      ))}
    </g>
  );
}

/** A structure to keep off: how wide it is, and its course. */
function Structure({ s, bright, k }: Look & { s: Drawn["structures"][number] }) {
  const line = s.line.length > 1 ? s.line : [...s.line, ...s.line];
  const pts = line.map((p) => `${p.x},${p.y}`).join(" ");
  const out = bright === s.structure;
  return (
    <g opacity={bright && !out ? 0.45 : 1}>
      <polyline points={pts} strokeWidth={2 * s.radius} opacity={out ? 0.34 : 0.15} />
      <polyline points={pts} strokeWidth={(out ? 2.4 : 1.5) * k} strokeDasharray={`${5 * k} ${3 * k}`} />
    </g>
  );
}
