import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { Changed } from "./RowWords";
import { shortDate } from "./time";

const change = (trend: Schemas["Trend"]): Schemas["Change"] => ({
  direction: "better",
  meaningful: true,
  text: "clearly better",
  unit: "",
  delta: -2,
  threshold: { absolute: 2 },
  source: "",
  trend,
});

describe("a trend in words", () => {
  const said = (per_week: number, low: number, high: number) =>
    renderToStaticMarkup(<Changed c={change({ per_week, low, high, n: 8 })} what="Number" />);
  it("says its range", () => expect(said(-0.62, -0.9, -0.2)).toContain("−0.6 a week (−0.9 to −0.2)"));
  it("leaves a range out that says the same twice", () =>
    expect(said(-0.96, -1.04, -0.96)).toMatch(/−1 a week</));
  it("is level where nothing of it would be seen", () => {
    expect(said(-0.01, -0.04, 0.02)).toContain("level on the whole");
    expect(said(-0.01, -0.2, 0.2)).toContain("0 a week (−0.2 to +0.2)");
  });
});

describe("a change in words", () => {
  const said = (over: Partial<Schemas["Change"]>, what: string) =>
    renderToStaticMarkup(
      <Changed c={{ ...change({ per_week: -1, low: -1, high: -1, n: 8 }), ...over }} what={what} />,
    );
  it("has its unit where one is written, and says what a real change is", () => {
    expect(said({ delta: -75.46, unit: "cm²" }, "Area")).toContain("Area −75.5 cm²: clearly");
    expect(said({ delta: 120, unit: "kPa", threshold: { absolute: 100 } }, "Threshold")).toContain(
      "Threshold +120 kPa",
    );
    expect(said({ delta: 5, unit: "°", threshold: { absolute: 7 } }, "Left")).toContain("real change is 7°");
    expect(said({ delta: -2, unit: "NPRS" }, "Number")).toContain("Number −2: ");
    expect(said({ delta: 0, unit: "points" }, "Score")).toContain("Score 0: ");
  });
});

describe("a date", () => {
  it("says its year where it is not this one", () => {
    const year = new Date().getFullYear();
    expect(shortDate(`${year}-03-05`)).toBe("5 Mar");
    expect(shortDate(`${year - 3}-03-05`)).toBe(`5 Mar ${year - 3}`);
  });
});
