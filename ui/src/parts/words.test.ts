import { describe, expect, it } from "vitest";
import { dateFormat } from "./dates";
import {
  beforeAfter,
  clock,
  count,
  day,
  dayWords,
  deg,
  isoDay,
  longDay,
  movementName,
  one,
  plain,
  sentence,
  unbroken,
  time,
} from "./words";

describe("words", () => {
  it("turns ids into the words of the trade", () => {
    expect(sentence(plain("upper-trapezius"))).toBe("Upper trapezius");
    expect(movementName("cervical.lateral-flexion")).toBe("Neck side-bend");
    expect(movementName("knee.flexion")).toBe("Knee flexion");
    expect(movementName("ankle.dorsiflexion-knee-bent")).toBe("Ankle dorsiflexion, knee bent");
    expect(movementName("great-toe.extension")).toBe("Great toe extension");
    expect([plain("asis"), plain("greater-trochanter"), plain("psis")]).toEqual([
      "ASIS",
      "greater trochanter",
      "PSIS",
    ]);
  });
  it("prints numbers without needless decimals, and a dash for nothing", () => {
    expect([deg(10), deg(9.96), deg(undefined), deg(0)]).toEqual(["10°", "10°", "–", "0°"]);
    expect([one(6), one(6.5), one(undefined), one(0)]).toEqual(["6", "6.5", "–", "0"]);
    expect([clock(0), clock(9.9), clock(90), clock(119.5)]).toEqual(["0:00", "0:09", "1:30", "1:59"]);
  });
  it("says what was taken before and after, and what was taken once", () => {
    expect(beforeAfter(7, 5, one)).toBe("7 → 5");
    expect(beforeAfter(0, 0, deg)).toBe("0° → 0°");
    expect(beforeAfter(7, undefined, one)).toBe("7, not rechecked");
    expect(beforeAfter(undefined, 5, one)).toBe("5 afterwards");
    expect(beforeAfter(undefined, undefined, one)).toBe("not taken");
  });
  it("counts", () => {
    expect([count(1, "visit"), count(0, "visit")]).toEqual(["1 visit", "0 visits"]);
    expect([count(1, "entry", "entries"), count(2, "entry", "entries")]).toEqual(["1 entry", "2 entries"]);
  });
  it("shows instants in the practice's time zone, whatever the browser's", () => {
    const late = "2026-03-10T23:30:00Z";
    expect(time(late, "Europe/Vienna")).toBe("00:30");
    expect(day(late, "Europe/Vienna")).toBe("11 Mar");
    expect(isoDay(new Date(late), "Europe/Vienna")).toBe("2026-03-11");
    expect(isoDay(new Date(late), "America/Denver")).toBe("2026-03-10");
    expect(longDay(new Date(late), "Europe/Vienna")).toBe("Wednesday 11 March");
  });
  it("names each day of a leap year as the browser does", () => {
    const format = dateFormat("en-GB", { timeZone: "UTC", weekday: "long", day: "numeric", month: "long" });
    for (let n = 0; n < 366; n++) {
      const at = new Date(Date.UTC(2028, 0, 1 + n));
      expect(dayWords(at.toISOString().slice(0, 10))).toBe(format.format(at).replace(",", ""));
    }
  });
});

describe("a range", () => {
  it("stays on one line with its unit, and nothing else is tied", () => {
    expect(unbroken("move 1–2 cm and wait 5 s")).toBe("move 1\u2060–\u20602\u00a0cm and wait 5\u00a0s");
    expect(unbroken("Press slowly – then 3 times")).toBe("Press slowly – then 3 times");
  });
});
