// The shapes that drawings of poses are made of.
import { styled } from "styled-components";
import type { Schemas } from "../api/client";

type Point = Schemas["Measured"]["pivot"];

export const Picture = styled.svg`
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

const rad = (deg: number) => (deg * Math.PI) / 180;

/** A place at an angle and a distance from the pivot. */
export const around = (c: Point, deg: number, r: number): Point => ({
  x: c.x + r * Math.cos(rad(deg)),
  y: c.y + r * Math.sin(rad(deg)),
});

/** A sector between two angles of the picture. */
export function sector(c: Point, from: number, to: number, r: number): string {
  const [a, b] = [around(c, from, r), around(c, to, r)];
  const far = Math.abs(to - from) > 180 ? 1 : 0;
  return `M${c.x},${c.y}L${a.x},${a.y}A${r},${r} 0 ${far} ${to > from ? 1 : 0} ${b.x},${b.y}Z`;
}

/** How far along a bearing, in degrees clockwise from the picture's right. */
export const bearingOf = (from: Point, to: Point) =>
  (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;

export const ends = (a: Point, b: Point) => ({ x1: a.x, y1: a.y, x2: b.x, y2: b.y });

export const Parts = ({ of }: { of: Schemas["Limb"][] }) =>
  of.map((s) => <path key={s.part} className="part" d={s.path} />);

/** What turns about its own length: an arrow around the middle of a line. */
export function Around({ line, sense, wide }: { line: Schemas["Ray"]; sense: number; wide: number }) {
  const { from, to } = line;
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  const [rx, ry] = [wide * 0.24, wide * 0.08];
  const tip = sense > 0 ? rx : -rx;
  return (
    <g transform={`translate(${x} ${y}) rotate(${bearingOf(from, to) - 90})`}>
      <path className="now" fill="none" d={`M${-tip},0A${rx},${ry} 0 0 ${sense > 0 ? 0 : 1} ${tip},0`} />
      <path
        className="now"
        fill="none"
        d={`M${tip - ry * 0.5},${ry * 0.1}L${tip},${-ry * 0.1}L${tip + ry * 0.45},${ry * 0.5}`}
      />
    </g>
  );
}

/** A line with a tip. */
export function Arrow({ from, to, tip }: { from: Point; to: Point; tip: number }) {
  const a = bearingOf(to, from);
  const [p, q] = [around(to, a + 28, tip), around(to, a - 28, tip)];
  return (
    <path
      className="now"
      fill="none"
      d={`M${from.x},${from.y}L${to.x},${to.y}M${p.x},${p.y}L${to.x},${to.y}L${q.x},${q.y}`}
    />
  );
}
