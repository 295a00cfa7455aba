// How a movement is measured: the limb at its start and at its usual end, where the instrument
// lies, which way it turns, and the angle of the moment. The shapes are the core's; here they
// are only turned.
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { Around, around, bearingOf, ends, Parts, Picture, sector } from "./poseShapes";

type Drawing = Schemas["Measured"];
type Point = Drawing["pivot"];

interface Angles {
  /** What is read now, or was written down. */
  now?: number;
  /** What was read last time. */
  last?: number;
  /** Where it is usual, and below what it counts as short. */
  usual: number;
  short?: number;
}

interface Props {
  drawing: Drawing;
  angles: Angles;
  tool: string;
  label: string;
}

export function MeasuredPose({ drawing: d, angles, tool, label }: Props) {
  const { frame: box, pivot, zero, sense } = d;
  const bearing = bearingOf(pivot, zero.to);
  const at = (deg: number) => bearing + sense * deg;
  const reach = box.width / 2;
  const shown = angles.now ?? 0;
  const unit = box.width / 100;
  return (
    <Picture
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      role="img"
      aria-label={label}
      data-pose={d.movement}
      data-deg={Math.round(shown)}
    >
      {!d.axial && (
        <>
          {angles.short !== undefined && (
            <path className="flagged" d={sector(pivot, at(0), at(angles.short), reach * 0.86)} />
          )}
          <path className="usual" d={sector(pivot, at(angles.short ?? 0), at(angles.usual), reach * 0.86)} />
        </>
      )}
      <Parts of={d.still} />
      {d.axial ? (
        <>
          <Parts of={d.moving} />
          <Around line={d.zero} sense={d.sense} wide={d.frame.width} />
        </>
      ) : (
        <>
          <Turned d={d} deg={shown === 0 ? angles.usual : 0} className="ghost" />
          <Turned d={d} deg={shown}>
            {tool === "goniometer" ? (
              <line className="arm" {...ends(pivot, zero.to)} />
            ) : (
              <Level at={zero} size={unit * 5} />
            )}
          </Turned>
          {tool === "goniometer" && <line className="arm" {...ends(pivot, d.base.to)} />}
          {angles.last !== undefined && (
            <line className="last" {...ends(pivot, around(pivot, at(angles.last), reach * 0.9))} />
          )}
          {angles.now !== undefined && (
            <line className="now" {...ends(pivot, around(pivot, at(angles.now), reach * 0.9))} />
          )}
          <Degrees at={around(pivot, at(angles.usual), reach * 0.92)} size={unit * 4}>
            {angles.usual}°
          </Degrees>
          <circle cx={pivot.x} cy={pivot.y} r={unit * 1.2} fill="var(--point)" />
        </>
      )}
    </Picture>
  );
}

interface TurnedProps {
  d: Drawing;
  deg: number;
  className?: string;
  /** The instrument on it. */
  children?: ReactNode;
}

/** What moves, so many degrees from its zero; what follows bends back at its own joint. */
const Turned = ({ d, deg, className, children }: TurnedProps) => (
  <g className={className} transform={`rotate(${d.sense * deg} ${d.pivot.x} ${d.pivot.y})`}>
    <Parts of={d.moving} />
    {d.follows && (
      <g transform={`rotate(${d.follows.sense * deg} ${d.follows.pivot.x} ${d.follows.pivot.y})`}>
        <Parts of={d.follows.limbs} />
      </g>
    )}
    {children}
  </g>
);

/** An inclinometer, along the limb. */
function Level({ at, size }: { at: Drawing["zero"]; size: number }) {
  const [x, y] = [at.from.x + (at.to.x - at.from.x) * 0.6, at.from.y + (at.to.y - at.from.y) * 0.6];
  const along = (Math.atan2(at.to.y - at.from.y, at.to.x - at.from.x) * 180) / Math.PI;
  return (
    <g transform={`translate(${x} ${y}) rotate(${along})`}>
      <rect
        className="tool"
        x={-size}
        y={-size * 0.4}
        width={size * 2}
        height={size * 0.8}
        rx={size * 0.2}
        vectorEffect="non-scaling-stroke"
      />
      <circle className="tool" r={size * 0.24} vectorEffect="non-scaling-stroke" />
    </g>
  );
}

function Degrees({ at, size, children }: { at: Point; size: number; children: ReactNode }) {
  return (
    <text x={at.x} y={at.y} fontSize={size} textAnchor="middle" dominantBaseline="middle">
      {children}
    </text>
  );
}
