import { describe, expect, it } from "vitest";
import { daysOn, hourOf, onTheWall, placed, weekOf } from "./place";

const visit = (starts_at: string, minutes = 60) => ({ id: starts_at, client: "c", starts_at, minutes });

describe("the grid of a week", () => {
  it("keeps nine o'clock at one height when clocks change", () => {
    expect(onTheWall("2027-03-27T08:00:00Z", "Europe/Vienna")).toEqual({ date: "2027-03-27", minute: 540 });
    expect(onTheWall("2027-03-28T07:00:00Z", "Europe/Vienna")).toEqual({ date: "2027-03-28", minute: 540 });
    expect(onTheWall("2027-10-31T08:00:00Z", "Europe/Vienna")).toEqual({ date: "2027-10-31", minute: 540 });
  });
  it("takes the day of the practice, not of the device", () => {
    expect(onTheWall("2027-06-01T23:30:00Z", "Europe/Vienna").date).toBe("2027-06-02");
  });
  it("lays what overlaps beside each other, and nothing else", () => {
    const list = placed(
      [
        visit("2027-06-01T08:00:00Z"),
        visit("2027-06-01T08:30:00Z"),
        visit("2027-06-01T09:00:00Z"),
        visit("2027-06-01T12:00:00Z"),
        visit("2027-06-02T08:00:00Z"),
      ],
      "2027-06-01",
      "UTC",
    );
    expect(list.map((p) => [p.lane, p.lanes])).toEqual([
      [0, 2],
      [1, 2],
      [0, 2],
      [0, 1],
    ]);
  });
  it("begins a week where the practice does", () => {
    expect(weekOf("2026-11-26", 1)).toBe("2026-11-23");
    expect(weekOf("2026-11-26", 0)).toBe("2026-11-22");
    expect(weekOf("2026-11-28", 6)).toBe("2026-11-28");
    expect(daysOn("2027-03-27", 2)).toBe("2027-03-29");
  });
  it("says the time in twelve or twenty-four hours", () => {
    expect(hourOf(0, 12)).toBe("12:00 am");
    expect(hourOf(750, 12)).toBe("12:30 pm");
    expect(hourOf(545, 24)).toBe("09:05");
  });
});
