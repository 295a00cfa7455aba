// Posture readings drawn on the figure, so that the client sees them: tilted
// lines, distances, angles, the way something turns or bulges. Angles are drawn
// as they are.
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { one } from "../parts/words";
import { scaleOf, useFigure, type View } from "./BodySvg";

interface Place {
  x: number;
  y: number;
}

/** Measures that only the views from the side can show. */
export const fromTheSide = ["craniovertebral-angle", "pelvic-tilt"];

const radians = (d: number) => (d * Math.PI) / 180;

export function PostureLines({
  view,
  posture,
  flags,
}: {
  view: View;
  posture: Schemas["Posture"][];
  flags: Schemas["PostureFlag"][];
}) {
  const { data: figure } = useFigure(view);
  if (!figure || posture.length === 0) return null;
  const k = scaleOf(view);
  const mark = (id: string, side: string): Place | undefined =>
    figure.landmarks.find((l) => l.id === id && (l.side === side || l.side === "midline"));
  const label = (at: Place, text: string, anchor: "start" | "middle" | "end" = "middle") => (
    <text
      x={at.x}
      y={at.y}
      fontSize={20 * k}
      fontWeight={650}
      textAnchor={anchor}
      fill="var(--ink)"
      stroke="var(--card)"
      strokeWidth={5 * k}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
  const level = (a: Place, b: Place) => (
    <line
      x1={a.x}
      y1={a.y}
      x2={b.x}
      y2={b.y}
      stroke="var(--ink-soft)"
      strokeWidth={k}
      strokeDasharray={`${3 * k} ${4 * k}`}
    />
  );
  const line = (d: string, flagged: boolean) => (
    <path
      d={d}
      fill="none"
      stroke="var(--right)"
      strokeWidth={(flagged ? 3 : 1.8) * k}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
  /** A line between the two sides of a landmark, up on the high side. */
  const tilt = (id: string, p: Schemas["Posture"], flagged: boolean) => {
    const l = mark(id, "left"),
      r = mark(id, "right");
    if (!l || !r || !p.degrees) return null;
    const c = { x: (l.x + r.x) / 2, y: (l.y + r.y) / 2 };
    const half = Math.abs(l.x - r.x) / 2 + 26;
    const to = (p.high_side === "left" ? l.x : r.x) > c.x ? 1 : -1;
    const up = Math.tan(radians(Math.abs(p.degrees))) * half * to;
    return (
      <>
        {level({ x: c.x - half, y: c.y }, { x: c.x + half, y: c.y })}
        {line(`M${c.x - half},${c.y + up}L${c.x + half},${c.y - up}`, flagged)}
        {label(
          { x: c.x + to * (half + 8), y: c.y - Math.abs(up) + 4 },
          `${one(Math.abs(p.degrees))}°`,
          to > 0 ? "start" : "end",
        )}
      </>
    );
  };
  /** An arc below the front, above the back, that ends on the side that is forward. */
  const turn = (id: string, p: Schemas["Posture"], flagged: boolean) => {
    const to = mark(id, p.high_side ?? ""),
      from = mark(id, p.high_side === "left" ? "right" : "left");
    if (!to || !from || !p.high_side) return null;
    const dip = view === "front" ? 40 : -40,
      dir = Math.sign(to.x - from.x),
      y = to.y + (view === "front" ? 26 : -20);
    return (
      <>
        {line(
          `M${from.x},${y}Q${(from.x + to.x) / 2},${y + dip} ${to.x},${y}M${to.x - dir * 14},${y + dip * 0.06 - 6}L${to.x},${y}L${to.x - dir * 8},${y + dip * 0.34}`,
          flagged,
        )}
        {label({ x: to.x + dir * 10, y: y + (dip > 0 ? 16 : -8) }, "forward", dir > 0 ? "start" : "end")}
      </>
    );
  };
  const draw = (p: Schemas["Posture"], flagged: boolean): ReactNode => {
    const side = p.side ?? "";
    const flat = view === "front" || view === "back";
    switch (p.measure) {
      case "shoulder-height":
        return flat && tilt("acromion", p, flagged);
      case "pelvis-height":
        return flat && tilt("iliac-crest", p, flagged);
      case "shoulder-girdle-rotation":
        return flat && turn("acromion", p, flagged);
      case "pelvis-rotation":
        return flat && turn("iliac-crest", p, flagged);
      case "acromion-to-table": {
        const a = view === "front" && mark("acromion", side);
        return a && p.cm !== undefined && label({ x: a.x, y: a.y - 26 }, `${one(p.cm)} cm`);
      }
      case "scapula-distance": {
        const a = view === "back" && mark("scapula-medial-border", side),
          spine = mark("T7", "midline");
        return (
          a &&
          spine &&
          p.cm !== undefined && (
            <>
              {line(
                `M${spine.x},${a.y}L${a.x},${a.y}M${a.x},${a.y - 8}V${a.y + 8}M${spine.x},${a.y - 8}V${a.y + 8}`,
                flagged,
              )}
              {label(
                { x: a.x + Math.sign(a.x - spine.x) * 8, y: a.y + 6 },
                `${one(p.cm)} cm`,
                a.x > spine.x ? "start" : "end",
              )}
            </>
          )
        );
      }
      case "scapular-upward-rotation": {
        const root = view === "back" && mark("scapula-spine-root", side),
          low = mark("scapula-inferior-angle", side);
        return (
          root &&
          low &&
          p.degrees !== undefined && (
            <>
              {line(`M${root.x},${root.y}L${low.x},${low.y}`, flagged)}
              {label({ x: low.x, y: low.y + 26 }, `${one(p.degrees)}°`)}
            </>
          )
        );
      }
      case "side-curve": {
        const top = view === "back" && mark("C7", "midline"),
          low = mark("S2", "midline");
        if (!top || !low || !p.high_side) return null;
        const out = (mark("acromion", p.high_side)?.x ?? 0) > top.x ? 1 : -1;
        const mid = (top.y + low.y) / 2;
        return (
          <>
            {level(top, low)}
            {line(`M${top.x},${top.y}Q${top.x + out * 56},${mid} ${low.x},${low.y}`, flagged)}
          </>
        );
      }
      case "lumbar-curve": {
        const at = view === "back" && mark("L3", "midline");
        return (
          at &&
          p.kind === "hinge" && (
            <>
              {line(`M${at.x - 22},${at.y - 8}L${at.x},${at.y}L${at.x + 22},${at.y - 8}`, flagged)}
              {label({ x: at.x + 28, y: at.y - 4 }, "hinge", "start")}
            </>
          )
        );
      }
      case "craniovertebral-angle": {
        const c7 = !flat && mark("C7", "midline"),
          ear = mark("tragus", view.endsWith("left") ? "left" : "right");
        if (!c7 || !ear || p.degrees === undefined) return null;
        const far = Math.hypot(ear.x - c7.x, ear.y - c7.y) + 14,
          on = Math.sign(ear.x - c7.x);
        return (
          <>
            {level(c7, { x: c7.x + on * far, y: c7.y })}
            {line(
              `M${c7.x},${c7.y}L${c7.x + on * far * Math.cos(radians(p.degrees))},${c7.y - far * Math.sin(radians(p.degrees))}`,
              flagged,
            )}
            {label({ x: c7.x + on * (far + 8), y: c7.y + 5 }, `${one(p.degrees)}°`, on > 0 ? "start" : "end")}
          </>
        );
      }
      case "pelvic-tilt": {
        const front = view === side && mark("asis", side),
          rear = mark("psis", side);
        if (!front || !rear || p.degrees === undefined) return null;
        const c = { x: (front.x + rear.x) / 2, y: (front.y + rear.y) / 2 },
          half = Math.abs(front.x - rear.x) / 2 + 16,
          on = Math.sign(front.x - rear.x);
        // The front end lies lower, the more the pelvis tips forward.
        const down = Math.tan(radians(p.degrees)) * half;
        return (
          <>
            {level({ x: c.x - half, y: c.y }, { x: c.x + half, y: c.y })}
            {line(`M${c.x - on * half},${c.y - down}L${c.x + on * half},${c.y + down}`, flagged)}
            {label({ x: c.x, y: c.y - 16 }, `${one(p.degrees)}°`)}
          </>
        );
      }
    }
    return null;
  };
  return (
    <g aria-hidden data-posture-lines>
      {posture.map((p, i) => (
        <g key={p.measure + (p.side ?? "")} data-drawn={p.measure}>
          {draw(p, flags[i]?.flagged ?? false)}
        </g>
      ))}
    </g>
  );
}
