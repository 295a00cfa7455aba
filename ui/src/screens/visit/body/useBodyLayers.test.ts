import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
import type { Path } from "../steps";
import { marksOn, tiesOn } from "./useBodyLayers";

const at = (point: string, view: string, x: number) =>
  ({
    point,
    identity: point,
    view,
    x,
    y: 500,
    muscle: "soleus",
    side: "left",
  }) as unknown as Schemas["Point"];
const points = [at("a", "back", 180), at("b", "back", 200), at("c", "front", 150)];
const work = [
  { point: "a", activity: "active" },
  { point: "b", activity: "latent", of: "a" },
  { point: "c", activity: "latent", of: "b" },
] as Schemas["PointWork"][];
const path = (step: string, part = "range") => ({ step, part }) as unknown as Path;

describe("what is drawn on the body", () => {
  it("shows a view's own points, told apart by what they are", () => {
    expect(marksOn("back", path("find"), [], points, work).map((m) => [m.id, m.kind])).toEqual([
      ["a", "active"],
      ["b", "latent"],
    ]);
    expect(marksOn("front", path("find"), [at("old", "front", 10)], points, work)).toHaveLength(2);
  });
  it("shows no point while questions are asked or signs are touched", () => {
    expect(marksOn("back", path("screen"), [], points, work)).toEqual([]);
    expect(marksOn("back", path("measure", "signs"), [], points, work)).toEqual([]);
  });
  it("ties a point to what it depends on, and names one of another view", () => {
    const name = (p: Schemas["Point"]) => `point ${p.point}`;
    const [tie] = tiesOn("back", points, work, "b", name);
    expect(tie).toMatchObject({ from: { point: "a" }, to: { point: "b" }, bright: true });
    const [far] = tiesOn("front", points, work, undefined, name);
    expect(far).toMatchObject({ from: undefined, name: "point b", to: { point: "c" }, bright: false });
  });
});
