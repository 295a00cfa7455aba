import { beforeAll, describe, expect, it } from "vitest";
import type { Core } from "../../../core/core";
import { realCore } from "../../../testing/core";
import { type Draft, readingOf } from "./draft";
import { type Measure, measures } from "./measures";

let core: Core;
beforeAll(async () => {
  core = await realCore();
});

const read = (measure: string, v: Draft, side?: "left" | "right") =>
  readingOf(core, measure, measures[measure] as Measure, v, side);

describe("a posture reading in the making", () => {
  it("takes a slope as it is, and works one out from two lengths", async () => {
    expect(await read("shoulder-height", { slope: 3 }, "left")).toEqual({
      reading: { measure: "shoulder-height", high_side: "left", degrees: 3 },
    });
    const half = await read("shoulder-height", { distance: 34, height: 17 }, "right");
    expect(half).toEqual({ reading: { measure: "shoulder-height", high_side: "right", degrees: 30 } });
  });
  it("says what it lacks: the side, a second number, a distance", async () => {
    expect(await read("shoulder-height", { slope: 3 })).toEqual({ lacks: "Which side is high, or forward?" });
    expect(await read("pelvic-tilt", { slope: 12 })).toEqual({ lacks: "Which side was read?" });
    const one = await read("shoulder-height", { distance: 34 }, "left");
    expect(one).toHaveProperty("lacks", expect.stringContaining("any two of distance, height difference"));
    expect(await read("scapula-distance", {}, "left")).toEqual({ lacks: "The distance in cm is missing." });
  });
  it("passes on what the core refuses: a height that no such distance has", async () => {
    const { lacks } = (await read("shoulder-height", { distance: 10, height: 20 }, "left")) as {
      lacks: string;
    };
    expect(lacks).toContain("height_difference_cm");
  });
});
