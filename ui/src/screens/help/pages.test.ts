import { describe, expect, it } from "vitest";
import { stepNames } from "../visit/steps";
import { pages, searched } from "./pages";

describe("the help", () => {
  it("has a page for each step of a visit, a hold and a sequence, half a page long", () => {
    expect(new Set(pages.map((p) => p.id))).toEqual(
      new Set([...Object.keys(stepNames), "hold", "sequence", "bench"]),
    );
    for (const p of pages) {
      const words = [p.what, ...p.how, ...p.keys, ...p.numbers].join(" ").split(/\s+/).length;
      expect(words, p.id).toBeGreaterThan(60);
      expect(words, p.id).toBeLessThan(260);
    }
  });
  it("is found by its words", () => {
    expect(searched("come off pedal").map((p) => p.id)).toEqual(["press", "hold"]);
    expect(searched("").length).toBe(pages.length);
    expect(searched("zebra")).toEqual([]);
  });
});
