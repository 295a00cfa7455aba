// How a movement is measured: the limb at its start and at its usual end, where the instrument
// lies, which way it turns, and the angle of the moment. The shapes are the core's; here they
// are only turned.
import type { ReactNode } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../api/client";

type Drawing = Schemas["Measured"];
type Point = Drawing["pivot"];

const Picture = styled.svg`
  width: 100%;
  height: 100%;
  min-height: 0;
  .part {
    fill: var(--skin);
    stroke: var(--skin-edge);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
  .ghost .part {
    fill: none;
    stroke-dasharray: 5 5;
  }
  .usual {
    fill: var(--accent);
    fill-opacity: 0.16;
  }
  .flagged {
    fill: var(--warn);
    fill-opacity: 0.14;
  }
  .last {
    stroke: var(--ink-soft);
    stroke-width: 2;
    stroke-dasharray: 3 5;
  }
  .now {
    stroke: var(--accent);
    stroke-width: 3.5;
  }
  .tool {
    fill: var(--card);
    stroke: var(--point);
    stroke-width: 2;
  }
  .arm {
    stroke: var(--point);
    stroke-width: 2.5;
    fill: none;
  }
  line,
  path {
    vector-effect: non-scaling-stroke;
  }
  text {
    font-family: var(--text);
    font-weight: 600;
    fill: var(--ink-soft);
  }
`;

interface Angles {
  /** What is read now, or was written down. */
  now?: number;
  /** What was read last time. */
  last?: number;
  /** Where it is usual, and below what it counts as short. */
  usual: number;
  short?: number;
}

const rad = (deg: number) => (deg * Math.PI) / 180;

/** A place at an angle and a distance from the pivot. */
const around = (c: Point, deg: number, r: number): Point => ({
  x: c.x + r * Math.cos(rad(deg)),
  y: c.y + r * Math.sin(rad(deg)),
});

/** A sector between two angles of the picture. */
function sector(c: Point, from: number, to: number, r: number): string {
  const [a, b] = [around(c, from, r), around(c, to, r)];
  const far = Math.abs(to - from) > 180 ? 1 : 0;
  return `M${c.x},${c.y}L${a.x},${a.y}A${r},${r} 0 ${far} ${to > from ? 1 : 0} ${b.x},${b.y}Z`;
}

interface Props {
  drawing: Drawing;
  angles: Angles;
  tool: string;
  label: string;
}

export function MeasuredPose({ drawing: d, angles, tool, label }: Props) {
  const { frame: box, pivot, zero, sense } = d;
  const bearing = (Math.atan2(zero.to.y - pivot.y, zero.to.x - pivot.x) * 180) / Math.PI;
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
          <Axis d={d} />
        </>
      ) : (
        <>
          <Turned d={d} deg={shown === 0 ? angles.usual : 0} className="ghost">
            <Parts of={d.moving} />
          </Turned>
          <Turned d={d} deg={shown}>
            <Parts of={d.moving} />
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

const ends = (a: Point, b: Point) => ({ x1: a.x, y1: a.y, x2: b.x, y2: b.y });

const Parts = ({ of }: { of: Drawing["still"] }) =>
  of.map((s) => <path key={s.part} className="part" d={s.path} />);

interface TurnedProps {
  d: Drawing;
  deg: number;
  className?: string;
  children: ReactNode;
}

const Turned = ({ d, deg, className, children }: TurnedProps) => (
  <g className={className} transform={`rotate(${d.sense * deg} ${d.pivot.x} ${d.pivot.y})`}>
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

/** What turns about its own length: an arrow around it. */
function Axis({ d }: { d: Drawing }) {
  const { from, to } = d.zero;
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  const along = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const [rx, ry] = [d.frame.width * 0.24, d.frame.width * 0.08];
  const tip = d.sense > 0 ? rx : -rx;
  return (
    <g transform={`translate(${x} ${y}) rotate(${along - 90})`}>
      <path className="now" fill="none" d={`M${-tip},0A${rx},${ry} 0 0 ${d.sense > 0 ? 0 : 1} ${tip},0`} />
      <path
        className="now"
        fill="none"
        d={`M${tip - ry * 0.5},${ry * 0.1}L${tip},${-ry * 0.1}L${tip + ry * 0.45},${ry * 0.5}`}
      />
    </g>
  );
}
