import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { MeasuredPose } from "./MeasuredPose";
import { PosePicture } from "./PosePicture";

const limb = (part: string) => ({ part, path: "M0,0L1,1Z" });
const posed = (deg?: number): Schemas["Posed"] => ({
  side: "left",
  plane: "side",
  limbs: [limb("thigh")],
  before: [limb("thigh")],
  turns: [
    {
      movement: "hip.flexion",
      pivot: { x: 0, y: 0 },
      before: { x: 0, y: 100 },
      after: { x: 100, y: 0 },
      sense: -1,
      ...(deg === undefined ? {} : { deg }),
    },
  ],
  twists: [],
  shifts: [],
  frame: { x: -120, y: -120, width: 240, height: 240 },
  unseen: [],
});

describe("a position of the joints", () => {
  const drawn = (deg?: number) => renderToStaticMarkup(<PosePicture d={posed(deg)} label="so" />);
  it("writes the degrees that are known", () => expect(drawn(90)).toContain(">90°<"));
  it("claims none that are not", () => expect(drawn()).not.toContain("°"));
  it("turns the way the joint went", () => {
    // A quarter against the clock: the arc ends at the picture's right, by the short way.
    const [, large, sweep, x, y] = /A75,75 0 (\d) (\d) ([-\d.e]+),([-\d.e]+)/.exec(drawn()) ?? [];
    expect([large, sweep]).toEqual(["0", "0"]);
    expect(Number(x)).toBeCloseTo(75);
    expect(Number(y)).toBeCloseTo(0);
  });
});

describe("a measured movement", () => {
  it("bends back what follows, as far as it goes", () => {
    const ray = { from: { x: 0, y: 0 }, to: { x: 100, y: 0 } };
    const d: Schemas["Measured"] = {
      movement: "hip.flexion",
      side: "right",
      plane: "side",
      start: "On the back",
      keep: "the pelvis",
      frame: { x: -120, y: -120, width: 240, height: 240 },
      still: [],
      moving: [limb("thigh")],
      pivot: { x: 0, y: 0 },
      sense: -1,
      zero: ray,
      base: ray,
      follows: { limbs: [limb("shank")], pivot: { x: 100, y: 0 }, sense: 1 },
    };
    const html = renderToStaticMarkup(
      <MeasuredPose drawing={d} angles={{ now: 40, usual: 120 }} tool="goniometer" label="so" />,
    );
    expect(html).toContain('transform="rotate(-40 0 0)"');
    expect(html).toContain('transform="rotate(40 100 0)"');
  });
});
