import { describe, expect, it } from "vitest";
import { byView, fromStrokes, mirrored, paint, toStrokes } from "./drawing";

const ache = { kind: "ache", intensity: 6 } as const;

describe("a pain drawing", () => {
  it("keeps the last stroke of each cell, and erases with 0", () => {
    let d = paint(new Map(), ["back:0,1", "back:0,2"], ache);
    d = paint(d, ["back:0,2"], { kind: "sharp", intensity: 8 });
    expect(d.get("back:0,2")).toEqual({ kind: "sharp", intensity: 8 });
    expect(paint(d, ["back:0,1"], { ...ache, intensity: 0 }).has("back:0,1")).toBe(false);
    expect(d.has("back:0,1")).toBe(true); // the one before is untouched, for undo
  });
  it("comes back from its strokes as it was", () => {
    const d = fromStrokes([
      { kind: "ache", intensity: 6, cells: ["back:0,1", "front:3,4"] },
      { kind: "burning", intensity: 2, cells: ["sole-left:1,1"] },
    ]);
    expect(fromStrokes(toStrokes(d))).toEqual(d);
    expect(byView(d)).toEqual({ back: ["back:0,1"], front: ["front:3,4"], "sole-left": ["sole-left:1,1"] });
  });
  it("mirrors to the other side, and twice is the same", () => {
    const d = fromStrokes([
      { kind: "ache", intensity: 6, cells: ["back:-4,31", "sole-left:2,5", "head-right:1,0"] },
    ]);
    expect([...mirrored(d).keys()]).toEqual(["back:-27,31", "sole-right:-7,5", "head-left:-1,0"]);
    expect(mirrored(mirrored(d))).toEqual(d);
  });
});
