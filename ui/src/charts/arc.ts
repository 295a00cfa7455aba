// The geometry of a movement drawn as an arc.

export type Side = "left" | "right" | "midline";

export const cx = 130;
export const cy = 104;
/** Outer radius of the band. */
export const R = 78;
/** Degrees of drawing that a full range takes on each side. */
const spread = 88;

export interface ArcScale {
  /** Degrees at the end of the arc. */
  full: number;
  at: (side: Side, degrees: number, r: number) => [number, number];
  band: (side: Side, from: number, to: number, r0: number, r1: number) => string;
  /** Degrees at a place of the drawing. */
  degreesAt: (side: Side, x: number, y: number) => number;
}

/** Small ranges are drawn wider than they are, so that 5° can be seen. */
export function arcScale(reference: number): ArcScale {
  const full = Math.max(reference * 1.25, 25);
  const at: ArcScale["at"] = (side, d, r) => {
    const a = ((Math.max(0, Math.min(d, full)) / full) * spread * Math.PI) / 180;
    const turned = side === "left" ? -a : a;
    return [cx + Math.sin(turned) * r, cy - Math.cos(turned) * r];
  };
  const band: ArcScale["band"] = (side, from, to, r0, r1) => {
    const [a, b, c, d] = [at(side, from, r1), at(side, to, r1), at(side, to, r0), at(side, from, r0)];
    const sweep = side === "left" ? 0 : 1;
    return `M${a}A${r1},${r1} 0 0 ${sweep} ${b}L${c}A${r0},${r0} 0 0 ${1 - sweep} ${d}Z`;
  };
  const degreesAt: ArcScale["degreesAt"] = (side, x, y) => {
    const a = (Math.atan2(x - cx, cy - y) * 180) / Math.PI;
    const d = Math.round(((side === "left" ? -a : a) / spread) * full);
    return Math.max(0, Math.min(Math.round(full), d));
  };
  return { full, at, band, degreesAt };
}
