import { expect, it } from "vitest";
import { underAge } from "./age";

it("asks for a guardian until the eighteenth birthday", () => {
  const day = new Date("2026-11-25T12:00:00Z");
  expect(underAge("2008-11-26", day)).toBe(true);
  expect(underAge("2008-11-25", day)).toBe(false);
  expect(underAge("1990-01-01", day)).toBe(false);
  for (const typed of ["", "2012", "2012-13", "12.3.2012", "2031-01-01"])
    expect(underAge(typed, day), typed).toBe(false);
});
