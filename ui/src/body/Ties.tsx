// Which point depends on which: a line that thins toward the one that depends.
import type { View } from "./views";
import { useMarkScale } from "./zoom";

export interface Tie {
  /** Absent where it lies in another view; then it is named. */
  from?: { x: number; y: number };
  name: string;
  to: { x: number; y: number };
  /** Of the point that is looked at. */
  bright: boolean;
}

export function Ties({ ties, view }: { ties: Tie[]; view: View }) {
  const scale = useMarkScale(view);
  return (
    <g aria-hidden pointerEvents="none" data-ties={ties.length}>
      {ties.map(({ from, name, to, bright }) => {
        // Toward the middle, where there is room for the name.
        const inward = to.x > 240 ? -1 : 1;
        const start = from ?? { x: to.x + inward * 62 * scale, y: to.y - 58 * scale };
        return (
          <g key={`${name},${to.x},${to.y}`} fill="var(--point)" opacity={bright ? 0.9 : 0.4}>
            <path d={wedge(start, to, (bright ? 4 : 2.6) * scale, 14 * scale)} />
            {!from && bright && <Name at={start} scale={scale} name={name} inward={inward} />}
          </g>
        );
      })}
    </g>
  );
}

interface NameProps {
  at: { x: number; y: number };
  scale: number;
  name: string;
  inward: number;
}

/** The point in another view on which this one depends. */
function Name({ at, scale, name, inward }: NameProps) {
  return (
    <text
      x={at.x + inward * 8 * scale}
      y={at.y - 6 * scale}
      fontSize={20 * scale}
      fontWeight={620}
      textAnchor={inward < 0 ? "end" : "start"}
      stroke="var(--card)"
      strokeWidth={5 * scale}
      paintOrder="stroke"
    >
      {name}
    </text>
  );
}

/** A bent wedge, broad at the point that rules, that ends short of the other. */
function wedge(a: Tie["to"], b: Tie["to"], breadth: number, short: number): string {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / length, dy / length];
  const end = { x: b.x - ux * Math.min(short, length / 3), y: b.y - uy * Math.min(short, length / 3) };
  const bend = length * 0.16;
  const via = { x: (a.x + end.x) / 2 - uy * bend, y: (a.y + end.y) / 2 + ux * bend };
  const [ox, oy] = [-uy * breadth, ux * breadth];
  return (
    `M${a.x + ox},${a.y + oy}Q${via.x + ox * 0.5},${via.y + oy * 0.5} ${end.x},${end.y}` +
    `Q${via.x - ox * 0.5},${via.y - oy * 0.5} ${a.x - ox},${a.y - oy}Z`
  );
}
