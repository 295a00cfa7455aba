// How each posture reading is drawn.
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { one } from "../parts/words";
import { Label, Level, Line, type Place } from "./posturePens";
import type { View } from "./views";

interface Given {
  p: Schemas["Posture"];
  view: View;
  /** A landmark of the view, on a side or in the middle. */
  mark: (id: string, side: string) => Place | undefined;
  k: number;
  flagged: boolean;
  /** A distance in the practice's unit. */
  length: (cm: number) => string;
}

const radians = (d: number) => (d * Math.PI) / 180;
const flat = (view: View) => view === "front" || view === "back";

/** A line between the two sides of a landmark, up on the high side. */
const tilt =
  (id: string) =>
  ({ p, view, mark, k, flagged }: Given) => {
    const l = mark(id, "left");
    const r = mark(id, "right");
    if (!flat(view) || !l || !r || !p.degrees) return null;
    const c = { x: (l.x + r.x) / 2, y: (l.y + r.y) / 2 };
    const half = Math.abs(l.x - r.x) / 2 + 26;
    const to = (p.high_side === "left" ? l.x : r.x) > c.x ? 1 : -1;
    const up = Math.tan(radians(Math.abs(p.degrees))) * half * to;
    return (
      <>
        <Level a={{ x: c.x - half, y: c.y }} b={{ x: c.x + half, y: c.y }} k={k} />
        <Line d={`M${c.x - half},${c.y + up}L${c.x + half},${c.y - up}`} flagged={flagged} k={k} />
        <Label
          at={{ x: c.x + to * (half + 8), y: c.y - Math.abs(up) + 4 }}
          text={`${one(Math.abs(p.degrees))}°`}
          anchor={to > 0 ? "start" : "end"}
          k={k}
        />
      </>
    );
  };

/** An arc below the front, above the back, that ends on the side that is forward. */
const turn =
  (id: string) =>
  ({ p, view, mark, k, flagged }: Given) => {
    const to = mark(id, p.high_side ?? "");
    const from = mark(id, p.high_side === "left" ? "right" : "left");
    if (!flat(view) || !to || !from || !p.high_side) return null;
    const front = view === "front";
    const dip = front ? 40 : -40;
    const dir = Math.sign(to.x - from.x);
    const y = to.y + (front ? 26 : -20);
    const arc = `M${from.x},${y}Q${(from.x + to.x) / 2},${y + dip} ${to.x},${y}`;
    const head = `M${to.x - dir * 14},${y + dip * 0.06 - 6}L${to.x},${y}L${to.x - dir * 8},${y + dip * 0.34}`;
    return (
      <>
        <Line d={arc + head} flagged={flagged} k={k} />
        <Label
          at={{ x: to.x + dir * 10, y: y + (front ? 16 : -8) }}
          text="forward"
          anchor={dir > 0 ? "start" : "end"}
          k={k}
        />
      </>
    );
  };

const toTable = ({ p, view, mark, k, length }: Given) => {
  const a = view === "front" && mark("acromion", p.side ?? "");
  if (!a || p.cm === undefined) return null;
  return <Label at={{ x: a.x, y: a.y - 26 }} text={length(p.cm)} k={k} />;
};

const bladeDistance = ({ p, view, mark, k, flagged, length }: Given) => {
  const a = view === "back" && mark("scapula-medial-border", p.side ?? "");
  const spine = mark("T7", "midline");
  if (!a || !spine || p.cm === undefined) return null;
  const end = (x: number) => `M${x},${a.y - 8}V${a.y + 8}`;
  return (
    <>
      <Line d={`M${spine.x},${a.y}L${a.x},${a.y}${end(a.x)}${end(spine.x)}`} flagged={flagged} k={k} />
      <Label
        at={{ x: a.x + Math.sign(a.x - spine.x) * 8, y: a.y + 6 }}
        text={length(p.cm)}
        anchor={a.x > spine.x ? "start" : "end"}
        k={k}
      />
    </>
  );
};

const bladeTurn = ({ p, view, mark, k, flagged }: Given) => {
  const root = view === "back" && mark("scapula-spine-root", p.side ?? "");
  const low = mark("scapula-inferior-angle", p.side ?? "");
  if (!root || !low || p.degrees === undefined) return null;
  return (
    <>
      <Line d={`M${root.x},${root.y}L${low.x},${low.y}`} flagged={flagged} k={k} />
      <Label at={{ x: low.x, y: low.y + 26 }} text={`${one(p.degrees)}°`} k={k} />
    </>
  );
};

const sideCurve = ({ p, view, mark, k, flagged }: Given) => {
  const top = view === "back" && mark("C7", "midline");
  const low = mark("S2", "midline");
  if (!top || !low || !p.high_side) return null;
  const out = (mark("acromion", p.high_side)?.x ?? 0) > top.x ? 1 : -1;
  const mid = (top.y + low.y) / 2;
  return (
    <>
      <Level a={top} b={low} k={k} />
      <Line d={`M${top.x},${top.y}Q${top.x + out * 56},${mid} ${low.x},${low.y}`} flagged={flagged} k={k} />
    </>
  );
};

const lumbarHinge = ({ p, view, mark, k, flagged }: Given) => {
  const at = view === "back" && mark("L3", "midline");
  if (!at || p.kind !== "hinge") return null;
  return (
    <>
      <Line
        d={`M${at.x - 22},${at.y - 8}L${at.x},${at.y}L${at.x + 22},${at.y - 8}`}
        flagged={flagged}
        k={k}
      />
      <Label at={{ x: at.x + 28, y: at.y - 4 }} text="hinge" anchor="start" k={k} />
    </>
  );
};

const forwardHead = ({ p, view, mark, k, flagged }: Given) => {
  const c7 = !flat(view) && mark("C7", "midline");
  const ear = mark("tragus", view.endsWith("left") ? "left" : "right");
  if (!c7 || !ear || p.degrees === undefined) return null;
  const far = Math.hypot(ear.x - c7.x, ear.y - c7.y) + 14;
  const on = Math.sign(ear.x - c7.x);
  const a = radians(p.degrees);
  return (
    <>
      <Level a={c7} b={{ x: c7.x + on * far, y: c7.y }} k={k} />
      <Line
        d={`M${c7.x},${c7.y}L${c7.x + on * far * Math.cos(a)},${c7.y - far * Math.sin(a)}`}
        flagged={flagged}
        k={k}
      />
      <Label
        at={{ x: c7.x + on * (far + 8), y: c7.y + 5 }}
        text={`${one(p.degrees)}°`}
        anchor={on > 0 ? "start" : "end"}
        k={k}
      />
    </>
  );
};

const pelvicTilt = ({ p, view, mark, k, flagged }: Given) => {
  const front = view === p.side && mark("asis", view);
  const rear = mark("psis", p.side ?? "");
  if (!front || !rear || p.degrees === undefined) return null;
  const c = { x: (front.x + rear.x) / 2, y: (front.y + rear.y) / 2 };
  const half = Math.abs(front.x - rear.x) / 2 + 16;
  const on = Math.sign(front.x - rear.x);
  // The front end lies lower, the more the pelvis tips forward.
  const down = Math.tan(radians(p.degrees)) * half;
  return (
    <>
      <Level a={{ x: c.x - half, y: c.y }} b={{ x: c.x + half, y: c.y }} k={k} />
      <Line
        d={`M${c.x - on * half},${c.y - down}L${c.x + on * half},${c.y + down}`}
        flagged={flagged}
        k={k}
      />
      <Label at={{ x: c.x, y: c.y - 16 }} text={`${one(p.degrees)}°`} k={k} />
    </>
  );
};

export const shapes: Partial<Record<string, (g: Given) => ReactNode>> = {
  "shoulder-height": tilt("acromion"),
  "pelvis-height": tilt("iliac-crest"),
  "shoulder-girdle-rotation": turn("acromion"),
  "pelvis-rotation": turn("iliac-crest"),
  "acromion-to-table": toTable,
  "scapula-distance": bladeDistance,
  "scapular-upward-rotation": bladeTurn,
  "side-curve": sideCurve,
  "lumbar-curve": lumbarHinge,
  "craniovertebral-angle": forwardHead,
  "pelvic-tilt": pelvicTilt,
};
