// Signs of squat and toe-touch: whether they were seen, and a touch on them.
import type { Schemas } from "../../../api/client";
import type { View } from "../../../body/views";
import type { Core } from "../../../core/core";
import type { LiveVisit } from "../../../core/useVisit";

export type Spot = Schemas["SignSpot"];

export const seenAt = (state: Schemas["State"], s: Spot) =>
  s.sign
    ? state.signs.some((x) => x.sign === s.sign && (x.side === s.side || x.side === "midline"))
    : state.posture.some(
        (p) =>
          p.measure === s.measure &&
          (s.measure === "lumbar-curve" ? p.kind === "hinge" : p.high_side === s.side),
      );

/** Sets or takes back a sign; a sign without a side of its own becomes two. */
export function toggleSign({ state, write, core }: LiveVisit, s: Spot) {
  const now = seenAt(state, s);
  if (!s.sign) {
    // A toe-touch sign is a posture reading; straight and even takes it back.
    if (s.measure === "lumbar-curve")
      write("posture-read", { measure: s.measure, kind: now ? "even" : "hinge" });
    else if (s.measure) write("posture-read", { measure: s.measure, ...(now ? {} : { high_side: s.side }) });
    return;
  }
  const both = state.signs.find((x) => x.sign === s.sign && x.side === "midline");
  if (both && s.side !== "midline") {
    write("sign-seen", { sign: s.sign, side: "midline", present: false });
    const other = core.lists.signs.find((x) => x.sign === s.sign && x.side !== s.side);
    if (other) write("sign-seen", { sign: s.sign, side: other.side, present: true });
    return;
  }
  write("sign-seen", { sign: s.sign, side: s.side, present: !now });
}

/** The spot under a touch, if one is near enough for a fingertip. */
export function spotAt(core: Core, view: View, p: { x: number; y: number }) {
  const near = core.lists.signs
    .filter((s) => s.view === view)
    .map((s) => ({ s, d: Math.hypot(s.x - p.x, s.y - p.y) }))
    .sort((a, b) => a.d - b.d)[0];
  return near && near.d <= 30 ? near.s : undefined;
}
