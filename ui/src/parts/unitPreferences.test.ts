import { describe, expect, it } from "vitest";
import {
  areaWords,
  cmOf,
  fingerCM,
  fingerIn,
  howFar,
  nearWords,
  lengthIn,
  lengthWords,
  readingWords,
  timeWords,
  wallTimeWords,
  type UnitPreferences,
} from "./unitPreferences";

const metric: UnitPreferences = { units: "metric", clock_hours: 24 };
const imperial: UnitPreferences = { units: "imperial", clock_hours: 12 };

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
  it("says how far a structure is, and keeps a finger-width to half a millimetre", () => {
    const n = {
      structure: "a",
      name: "A",
      text: "",
      sign: "",
      distance_cm: 2.54,
      finger_widths: 1.4,
      depth_cm: 5.08,
      keep_off_cm: 1,
      inside_keep_off: true,
      tier: "danger" as const,
    };
    expect(howFar(n, imperial)).toBe("1 in along the skin (1.4 finger-widths), about 2 in deep");
    expect(nearWords({ ...n, text: "A pulse.", move: "Move outward." })).toBe("A pulse. Move outward.");
    expect(nearWords({ ...n, text: "A pulse." })).toBe("A pulse.");
    for (const cm of [1.5, 1.8, 2.1]) {
      expect(fingerCM(fingerIn(cm, metric), metric)).toBe(cm);
      expect(Math.abs(fingerCM(fingerIn(cm, imperial), imperial) - cm)).toBeLessThan(0.05);
    }
  });
  it("writes an area in square inches, or as it is kept", () => {
    expect(areaWords(64.516, imperial)).toBe("10 in²");
    expect(areaWords(64.516, metric)).toBe("64.5 cm²");
  });
  it("says the time by twelve or twenty-four hours", () => {
    expect(timeWords("2027-06-01T12:30:00Z", "Europe/Vienna", metric)).toBe("14:30");
    expect(timeWords("2027-06-01T12:30:00Z", "Europe/Vienna", imperial)).toBe("2:30 pm");
    expect(timeWords("2027-06-01T22:05:00Z", "Europe/Vienna", imperial)).toBe("12:05 am");
    for (const at of ["00:05", "09:30", "12:00", "14:30", "23:59"])
      for (const prefs of [metric, imperial])
        expect(wallTimeWords(`2027-06-01T${at}:00+02:00`, prefs), at).toBe(
          timeWords(`2027-06-01T${at}:00+02:00`, "Europe/Vienna", prefs).replace("\u202f", " "),
        );
  });
});
