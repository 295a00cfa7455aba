// The geometry of a guide's picture.
import type { Schemas } from "../../../api/client";
import { scaleOf, type View } from "../../../body/views";
import type { Box } from "../../../body/zoom";

const between = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));

/** The part of a view that holds everything the guide draws in it; all of it
 * when there is nothing. */
export function closeUp(g: Schemas["Guide"], view: View, viewWidth: number): Box | undefined {
  const pts = [...g.landmarks, ...g.sites].filter((p) => p.view === view);
  if (!pts.length) return undefined;
  const xs = pts.map((p) => p.x);
  const ys = pts.map((p) => p.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const least = scaleOf(view) > 1 ? 480 : 190;
  const tall = Math.min(1016, Math.max(least, (y1 - y0) * 1.4, (x1 - x0) * 1.5));
  const wide = Math.min(viewWidth + 12, Math.max(tall * 0.42, (x1 - x0) * 1.5));
  return {
    x: between((x0 + x1) / 2 - wide / 2, -6, viewWidth + 6 - wide),
    y: between((y0 + y1) / 2 - tall / 2, -8, 1008 - tall),
    width: wide,
    height: tall,
  };
}

/** A line with a head at both ends, so long to each side of a place. */
export function arrow({ x, y }: { x: number; y: number }, degrees: number, length: number, head: number) {
  const a = (degrees * Math.PI) / 180;
  const dx = Math.cos(a) * length;
  const dy = Math.sin(a) * length;
  const tip = (ex: number, ey: number, way: number) => {
    const at = (turn: number) => `${ex - head * Math.cos(way + turn)},${ey - head * Math.sin(way + turn)}`;
    return `M${at(-0.5)}L${ex},${ey}L${at(0.5)}`;
  };
  const line = `M${x - dx},${y - dy}L${x + dx},${y + dy}`;
  return line + tip(x + dx, y + dy, a) + tip(x - dx, y - dy, a + Math.PI);
}
