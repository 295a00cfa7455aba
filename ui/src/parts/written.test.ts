import { describe, expect, it } from "vitest";
import { cmOf, lengthIn, lengthWords, readingWords, timeWords, type Written } from "./written";

const metric: Written = { units: "metric", clock_hours: 24 };
const imperial: Written = { units: "imperial", clock_hours: 12 };

describe("how things are written", () => {
  it("shows inches and keeps centimetres", () => {
    expect(lengthWords(168, imperial)).toBe("66.1 in");
    expect(lengthWords(168, metric)).toBe("168 cm");
    expect(cmOf(66.1, imperial)).toBe(167.9);
    expect(cmOf(168, metric)).toBe(168);
  });
  it("changes no length by more than half a tenth of an inch on the way and back", () => {
    for (let cm = 50; cm <= 250; cm += 0.1) {
      expect(Math.abs(cmOf(lengthIn(cm, imperial), imperial) - cm)).toBeLessThanOrEqual(0.18);
      expect(lengthIn(cm, metric)).toBeCloseTo(cm, 5);
    }
  });
  it("writes a reading in its unit, a length in the practice's", () => {
    expect(readingWords(-4, "cm", imperial)).toBe("-1.6 in");
    expect(readingWords(-4, "cm", metric)).toBe("-4 cm");
    expect(readingWords(37.5, "°", imperial)).toBe("37.5°");
  });
  it("says the time by twelve or twenty-four hours", () => {
    expect(timeWords("2027-06-01T12:30:00Z", "Europe/Vienna", metric)).toBe("14:30");
    expect(timeWords("2027-06-01T12:30:00Z", "Europe/Vienna", imperial)).toBe("2:30 pm");
    expect(timeWords("2027-06-01T22:05:00Z", "Europe/Vienna", imperial)).toBe("12:05 am");
  });
});
