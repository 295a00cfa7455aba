import { expect, it } from "vitest";
import { storyTrouble, tidy } from "./StoryFields";

it("a best above the worst is pointed out, nothing else", () => {
  expect(storyTrouble({ best: 6, worst: 4 })).toContain("above the worst");
  expect(storyTrouble({ best: 4, worst: 4 })).toBe("");
  expect(storyTrouble({ best: 6 })).toBe("");
});

it("activities without a name are not kept", () => {
  expect(tidy({ activities: [{ name: " ", score: 3 }, { name: "Stairs", score: 4 }] }).activities).toEqual([{ name: "Stairs", score: 4 }]);
  expect(tidy({ complaint: "Heel" })).toEqual({ complaint: "Heel", activities: [] });
});
