import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";
import { spotAt, toggleSign } from "./spots";

const spots = [
  { sign: "squat-heels-lift", name: "Heel lifts", side: "left", view: "back", x: 180, y: 980 },
  { sign: "squat-heels-lift", name: "Heel lifts", side: "right", view: "back", x: 300, y: 980 },
  { measure: "side-curve", name: "Bulges", side: "right", view: "back", x: 290, y: 280 },
  { measure: "lumbar-curve", name: "Hinges", side: "midline", view: "back", x: 240, y: 350 },
] as Schemas["SignSpot"][];

/** A visit that only notes what is written to it. */
function visit(state: Partial<Schemas["State"]>) {
  const written: [string, Record<string, unknown>][] = [];
  const v = {
    state: { signs: [], posture: [], ...state },
    core: { lists: { signs: spots } },
    write: (type: string, body: object) => {
      written.push([type, body as Record<string, unknown>]);
      return "";
    },
  } as unknown as LiveVisit;
  return { v, written };
}
const [left, , curve, hinge] = spots as [
  Schemas["SignSpot"],
  Schemas["SignSpot"],
  Schemas["SignSpot"],
  Schemas["SignSpot"],
];

describe("a touched sign", () => {
  it("is the nearest within a fingertip, in its own view", () => {
    const { v } = visit({});
    expect(spotAt(v.core, "back", { x: 190, y: 970 })?.side).toBe("left");
    expect(spotAt(v.core, "back", { x: 240, y: 600 })).toBeUndefined();
    expect(spotAt(v.core, "front", { x: 190, y: 970 })).toBeUndefined();
  });
  it("is set, and taken back by a second touch", () => {
    const a = visit({});
    toggleSign(a.v, left);
    expect(a.written).toEqual([["sign-seen", { sign: "squat-heels-lift", side: "left", present: true }]]);
    const b = visit({ signs: [{ sign: "squat-heels-lift", side: "left", present: true }] });
    toggleSign(b.v, left);
    expect(b.written).toEqual([["sign-seen", { sign: "squat-heels-lift", side: "left", present: false }]]);
  });
  it("without a side of its own keeps the other one when one is taken back", () => {
    const { v, written } = visit({ signs: [{ sign: "squat-heels-lift", side: "midline", present: true }] });
    toggleSign(v, left);
    expect(written).toEqual([
      ["sign-seen", { sign: "squat-heels-lift", side: "midline", present: false }],
      ["sign-seen", { sign: "squat-heels-lift", side: "right", present: true }],
    ]);
  });
  it("of the toe-touch is a posture reading", () => {
    const a = visit({});
    toggleSign(a.v, curve);
    toggleSign(a.v, hinge);
    expect(a.written).toEqual([
      ["posture-read", { measure: "side-curve", high_side: "right" }],
      ["posture-read", { measure: "lumbar-curve", kind: "hinge" }],
    ]);
    const b = visit({
      posture: [
        { measure: "side-curve", high_side: "right" },
        { measure: "lumbar-curve", kind: "hinge" },
      ],
    });
    toggleSign(b.v, curve);
    toggleSign(b.v, hinge);
    expect(b.written).toEqual([
      ["posture-read", { measure: "side-curve" }],
      ["posture-read", { measure: "lumbar-curve", kind: "even" }],
    ]);
  });
});
