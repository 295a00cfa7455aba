import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { skinMarkup } from "./skinMarkup";

const figure = (path: string) =>
  ({
    shapes: [
      { id: "trunk", path: "M0,0L10,0L10,10Z" },
      { id: "arm", path, layer: 1 },
    ],
    shades: [],
    inner: [{ id: "fold", path: "M1,1L2,2", weight: 1 }],
  }) as unknown as Schemas["FigureView"];

describe("the skin as markup", () => {
  it("has the farther layer first, and is made once", () => {
    const of = figure("M1.5e-3,-2C1,2 3,4 5,6z");
    const { whole, layers } = skinMarkup(of);
    expect(whole.__html).toBe('<path d="M0,0L10,0L10,10Z"/><path d="M1.5e-3,-2C1,2 3,4 5,6z"/>');
    expect(layers[0]?.inner.__html).toContain('opacity="0.8"');
    expect(layers[1]?.inner.__html).toBe("");
    expect(skinMarkup(of).whole).toBe(whole);
  });
  it("lets nothing but paths into the page", () => {
    for (const bad of ['M0,0"/><script>', "M0,0 <", "url(x)"])
      expect(() => skinMarkup(figure(bad))).toThrow("a path that is none");
  });
});
