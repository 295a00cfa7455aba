import { describe, expect, it } from "vitest";
import { amountOf, copyOf, moved, type Step, stepOf, type Technique, withAmount, withEach } from "./draft";

const strokes = {
  technique: "kneading",
  steer: "repetitions",
  amount: { usual: 5, least: 2, most: 10 },
  each_s: { usual: 6, least: 4, most: 12 },
} as Technique;
const step = (where: string, more: Partial<Step> = {}): Step => ({ technique: "kneading", where, ...more });

describe("a sequence in the making", () => {
  it("takes what is usual until somebody says otherwise", () =>
    expect(amountOf(step("upper-calf"), strokes)).toBe(5));
  it("stays within the bounds of its technique", () => {
    expect(withAmount(step("heel"), strokes, 99).dose).toEqual({ repetitions: 10, each_s: 6 });
    expect(withEach(step("heel"), strokes, 1).dose).toEqual({ repetitions: 5, each_s: 4 });
  });
  it("moves a step up and down, and loses none", () => {
    const list = [step("a"), step("b"), step("c")];
    expect(moved(list, 2, 0).map((s) => s.where)).toEqual(["c", "a", "b"]);
    expect(moved(list, 0, 2).map((s) => s.where)).toEqual(["b", "c", "a"]);
    expect(moved(list, 7, 0)).toEqual(list);
  });
  it("goes by seconds in steps that fit the dose", () => {
    expect([
      stepOf("seconds", 30),
      stepOf("seconds", 120),
      stepOf("seconds", 600),
      stepOf("breaths", 30),
    ]).toEqual([5, 10, 30, 1]);
  });
  it("copies a shipped one with a name of its own", () => {
    const copy = copyOf({
      id: "neck",
      name: "Neck",
      for: "A stiff neck.",
      block: "lengthen",
      source: "ours",
      steps: [step("a")],
    } as never);
    expect(copy).toMatchObject({ name: "Neck, our way", from: "neck", block: "lengthen" });
  });
});
