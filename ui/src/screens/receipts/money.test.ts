import { describe, expect, it } from "vitest";
import { hundredths, money } from "./money";

describe("money", () => {
  it("is written in hundredths", () => {
    expect([8500, 5, -1205, 0].map((c) => money(c))).toEqual(["85.00", "0.05", "−12.05", "0.00"]);
    expect(money(100, "EUR")).toBe("1.00 EUR");
  });
  it("is read with a point or a comma, and only as money", () => {
    expect(["85", "85.5", "85,50", " 0.05 ", "7,7"].map(hundredths)).toEqual([8500, 8550, 8550, 5, 770]);
    expect(["", "-1", "1.234", "1e3", "x", "1.2.3"].map(hundredths)).toEqual(Array(6).fill(undefined));
  });
  it("comes back as it was", () => {
    for (let c = 0; c < 20_000; c += 7) expect(hundredths(money(c))).toBe(c);
  });
});
