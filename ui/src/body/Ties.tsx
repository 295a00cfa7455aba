// Which point depends on which: a line that thins toward the one that depends.
import type { View } from "./views";
import { useScale } from "./zoom";

export interface Tie {
  from: { x: number; y: number };
  to: { x: number; y: number };
  /** Of the point that is looked at. */
  bright: boolean;
}

export function Ties({ ties, view }: { ties: Tie[]; view: View }) {
  const scale = useScale(view);
  return (
    <g aria-hidden pointerEvents="none" data-ties={ties.length}>
      {ties.map(({ from, to, bright }) => (
        <path
          key={`${from.x},${from.y},${to.x},${to.y}`}
          d={wedge(from, to, (bright ? 4 : 2.6) * scale, 14 * scale)}
          fill="var(--point)"
          opacity={bright ? 0.85 : 0.4}
        />
      ))}
    </g>
  );
}

/** A bent wedge, broad at the point that rules, that ends short of the other. */
function wedge(a: Tie["from"], b: Tie["to"], breadth: number, short: number): string {
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
