import { expect, it } from "vitest";
import { mergeStory, rebase, storyError, tidy } from "./story";

it("a best above the worst is pointed out, nothing else", () => {
  expect(storyError({ best: 6, worst: 4 })).toContain("above the worst");
  expect(storyError({ best: 4, worst: 4 })).toBe("");
  expect(storyError({ best: 6 })).toBe("");
});

it("activities without a name are not kept", () => {
  expect(
    tidy({
      activities: [
        { name: " ", score: 3 },
        { name: "Stairs", score: 4 },
      ],
    }).activities,
  ).toEqual([{ name: "Stairs", score: 4 }]);
  expect(tidy({ complaint: "Heel" })).toEqual({ complaint: "Heel", activities: [] });
});

it("what comes in while something is typed does not get lost, nor does what is typed", () => {
  const base = { complaint: "Heel", worst: 4 };
  expect(
    rebase(base, { ...base, worst: 6 }, { ...base, complaint: "Heel, since the move", medication: "None" }),
  ).toEqual({ complaint: "Heel, since the move", worst: 6, medication: "None" });
  expect(
    rebase(base, { ...base, complaint: "Left heel" }, { ...base, complaint: "Right heel" }).complaint,
  ).toBe("Left heel");
  expect(rebase(base, base, { now: 2 })).toEqual({ now: 2 });
});

it("a told story wipes out nothing that was noted, and cannot put a best above a worst", () => {
  const noted = {
    complaint: "Heel",
    now: 5,
    best: 4,
    worst: 8,
    medication: "None",
    activities: [{ name: "Stairs", score: 4 }],
  };
  expect(mergeStory(noted, { complaint: "Left heel", activities: [] })).toEqual({
    ...noted,
    complaint: "Left heel",
  });
  const told = mergeStory(noted, { worst: 3 });
  expect(told.best).toBeUndefined();
  expect(told.worst).toBe(3);
  expect(storyError(told)).toBe("");
});
