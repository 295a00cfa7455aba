// What can be laid on the body: bones, muscles, referral, structures, landmarks.
// Strokes are as wide on screen however close the body is, so nothing but the
// landmarks is drawn anew when it comes closer.
import { memo } from "react";
import type { Schemas } from "../api/client";
import { useScale } from "./zoom";
import type { View } from "./views";

type Drawn = Schemas["ViewLayers"];

interface Props {
  drawn: Drawn;
  view: View;
  clip: string;
  /** A muscle, structure or landmark to bring out. */
  bright?: string;
}

export function Layers({ drawn, view, clip, bright }: Props) {
  return (
    <g aria-hidden>
      <Bones of={drawn.bones} />
      <Strands of={drawn.strands} clip={clip} bright={bright} />
      <Zones of={drawn.zones} />
      <Structures of={drawn.structures} bright={bright} />
      <Landmarks of={drawn.landmarks} view={view} bright={bright} />
    </g>
  );
}

const Bones = memo(function Bones({ of }: { of: Drawn["bones"] }) {
  return (
    <g fill="none" stroke="var(--bone)" strokeLinecap="round">
      {of.map((l, i) => (
        <path
          key={`${l.id}${i}`}
          d={l.path}
          vectorEffect="non-scaling-stroke"
          strokeWidth={0.45 + 0.6 * l.weight}
          opacity={0.4 + 0.5 * l.weight}
        />
      ))}
    </g>
  );
});

interface Muscles {
  of: Drawn["strands"];
  clip: string;
  bright?: string;
}

const Strands = memo(function Strands({ of, clip, bright }: Muscles) {
  return (
    <g clipPath={clip} stroke="var(--muscle-edge)" fill="none" strokeLinecap="round" strokeLinejoin="round">
      {of.map((s, i) => (
        <Strand key={`${s.muscle}${s.side}${i}`} s={s} bright={bright} />
      ))}
    </g>
  );
});

/** A part of a muscle: tendon, the belly over it, and its fibres as one path. */
function Strand({ s, bright }: { s: Drawn["strands"][number]; bright?: string }) {
  const out = bright === s.muscle;
  const opacity = s.faded ? 0.08 : bright && !out ? 0.35 : 1;
  const still = "non-scaling-stroke";
  return (
    <g data-muscle={s.muscle} opacity={opacity}>
      {s.sinew && (
        <path
          d={s.sinew}
          fill="var(--sinew)"
          stroke="var(--sinew-edge)"
          vectorEffect={still}
          strokeWidth={0.4}
        />
      )}
      {s.belly && (
        <path d={s.belly} fill="var(--muscle)" vectorEffect={still} strokeWidth={out ? 1.1 : 0.5} />
      )}
      {s.bands.length > 0 && <path d={s.bands.join("")} fill="var(--sinew)" stroke="none" />}
      <path
        className="fibres"
        d={s.fibres.join("")}
        vectorEffect={still}
        strokeWidth={0.55}
        strokeOpacity={0.45}
      />
    </g>
  );
}

const Zones = memo(function Zones({ of }: { of: Drawn["zones"] }) {
  return of.map((z) => <Referral key={z.muscle + z.side} z={z} />);
});

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

const Structures = memo(function Structures({ of, bright }: { of: Drawn["structures"]; bright?: string }) {
  return (
    <g fill="none" stroke="var(--keep)" strokeLinecap="round" strokeLinejoin="round">
      {of.map((s, i) => (
        <Structure key={`${s.structure}${s.side}${i}`} s={s} bright={bright} />
      ))}
    </g>
  );
});

/** A structure to keep off: how wide it is, and its course, dashed where it lies on the
 * side that is turned away. */
function Structure({ s, bright }: { s: Drawn["structures"][number]; bright?: string }) {
  const line = s.line.length > 1 ? s.line : [...s.line, ...s.line];
  const pts = line.map((p) => `${p.x},${p.y}`).join(" ");
  const out = bright === s.structure;
  return (
    <g opacity={bright && !out ? 0.45 : 1}>
      <polyline points={pts} strokeWidth={2 * s.radius} opacity={(out ? 0.34 : 0.15) * (s.far ? 0.4 : 1)} />
      <polyline
        points={pts}
        vectorEffect="non-scaling-stroke"
        strokeWidth={out ? 2 : 1.2}
        strokeDasharray={s.far ? "1.5 3.5" : undefined}
      />
    </g>
  );
}

interface Marks {
  of: Drawn["landmarks"];
  view: View;
  bright?: string;
}

function Landmarks({ of, view, bright }: Marks) {
  const k = useScale(view);
  return of.map((l) => (
    <circle
      key={l.id + l.side}
      cx={l.x}
      cy={l.y}
      r={(bright === l.id ? 6 : 3.2) * k}
      fill="var(--accent)"
      stroke="var(--card)"
      strokeWidth={1.1 * k}
    />
  ));
}
