import { expect, it } from "vitest";
import { rebase, storyTrouble, tidy } from "./StoryFields";

it("a best above the worst is pointed out, nothing else", () => {
  expect(storyTrouble({ best: 6, worst: 4 })).toContain("above the worst");
  expect(storyTrouble({ best: 4, worst: 4 })).toBe("");
  expect(storyTrouble({ best: 6 })).toBe("");
});

it("activities without a name are not kept", () => {
  expect(tidy({ activities: [{ name: " ", score: 3 }, { name: "Stairs", score: 4 }] }).activities).toEqual([{ name: "Stairs", score: 4 }]);
  expect(tidy({ complaint: "Heel" })).toEqual({ complaint: "Heel", activities: [] });
});

it("what comes in while something is typed does not get lost, nor does what is typed", () => {
  const base = { complaint: "Heel", worst: 4 };
  expect(rebase(base, { ...base, worst: 6 }, { ...base, complaint: "Heel, since the move", medication: "None" })).toEqual({ complaint: "Heel, since the move", worst: 6, medication: "None" });
  expect(rebase(base, { ...base, complaint: "Left heel" }, { ...base, complaint: "Right heel" }).complaint).toBe("Left heel");
  expect(rebase(base, base, { now: 2 })).toEqual({ now: 2 });
});
