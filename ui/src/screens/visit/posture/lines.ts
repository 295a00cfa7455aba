// Where the measures of posture are read on the body, and which of them a touch means.
import type { Schemas } from "../../../api/client";
import type { View } from "../../../body/views";
import type { Core } from "../../../core/core";

export type PostureLine = Schemas["PostureLine"];
export type PosturePlace = Pick<PostureLine, "measure" | "side">;

/** A fingertip, in units of a view. */
const reach = 24;

/** How far a place is from a line. */
function distance(l: PostureLine, p: { x: number; y: number }): number {
  const [dx, dy] = [l.x2 - l.x1, l.y2 - l.y1];
  const long = dx * dx + dy * dy;
  const t = long === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - l.x1) * dx + (p.y - l.y1) * dy) / long));
  return Math.hypot(p.x - l.x1 - t * dx, p.y - l.y1 - t * dy);
}

/** The measure under a touch, if one is near enough for a fingertip. */
export function lineAt(core: Core, view: View, p: { x: number; y: number }): PostureLine | undefined {
  const [near] = core.lists.postureLines
    .filter((l) => l.view === view)
    .map((l) => ({ l, d: distance(l, p) }))
    .sort((a, b) => a.d - b.d);
  return near && near.d <= reach ? near.l : undefined;
}

export const samePlace = (a: PosturePlace | undefined, b: PosturePlace) =>
  a?.measure === b.measure && (a.side === b.side || b.side === "midline");
