// A position of the joints: the figure in it, dashed how it was before, and at each joint how far
// it turned. Where no degrees are known none are written.
import type { Schemas } from "../api/client";
import { Arrow, Around, around, bearingOf, Parts, Picture, sector } from "./poseShapes";

type Posed = Schemas["Posed"];

export function PosePicture({ d, label }: { d: Posed; label: string }) {
  const { frame: box } = d;
  const unit = box.width / 100;
  return (
    <Picture
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      role="img"
      aria-label={label}
      data-position={d.plane}
    >
      <g className="ghost">
        <Parts of={d.before} />
      </g>
      <Parts of={d.limbs} />
      {d.turns.map((t) => (
        <Turn key={t.movement} t={t} unit={unit} />
      ))}
      {d.twists.map((t) => (
        <Around key={t.movement} line={t.line} sense={t.sense} wide={box.width * 0.7} />
      ))}
      {d.shifts.map((s) => (
        <Arrow key={s.movement} from={s.line.from} to={s.line.to} tip={unit * 4} />
      ))}
    </Picture>
  );
}

function Turn({ t, unit }: { t: Posed["turns"][number]; unit: number }) {
  const { pivot, before, after, sense, deg } = t;
  const from = bearingOf(pivot, before);
  // The short or the long way round, as the joint went.
  const by = (((bearingOf(pivot, after) - from) * sense + 720) % 360) * sense;
  const reach = Math.max(Math.hypot(before.x - pivot.x, before.y - pivot.y) * 0.75, unit * 14);
  const out = around(pivot, from + by / 2, reach + unit * 8);
  return (
    <>
      <path className="usual" d={sector(pivot, from, from + by, reach)} />
      <Arrow
        from={around(pivot, from + by * 0.7, reach)}
        to={around(pivot, from + by, reach)}
        tip={unit * 4}
      />
      <circle cx={pivot.x} cy={pivot.y} r={unit * 1.4} fill="var(--point)" />
      {deg !== undefined && (
        <text x={out.x} y={out.y} fontSize={unit * 9} textAnchor="middle" dominantBaseline="middle">
          {Math.round(deg)}°
        </text>
      )}
    </>
  );
}
