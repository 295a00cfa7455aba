// @vitest-environment happy-dom
import { renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import type { LiveVisit } from "../../../core/useVisit";
import { type Answer, useAnswers } from "./useAnswers";

/** A visit whose state has not heard of what is written until it is told to. */
function slow() {
  const written: Answer[][] = [];
  const heard = new Set<string>();
  const state = { answers: [] as Answer[], known_answers: [], screening: { missing: [], singly: [] } };
  const visit = {
    state,
    write: (_: string, { answers }: { answers: Answer[] }) => {
      written.push(answers);
      return `e${written.length}`;
    },
    knows: (id: string) => heard.has(id),
  } as unknown as LiveVisit;
  return { visit, written, heard, state };
}

it("adds to what was said a moment ago, though the state has not heard of it", () => {
  const { visit, written } = slow();
  const answers = renderHook(() => useAnswers(visit)).result.current;
  answers.give([{ question: "varicose-veins", answer: "yes" }]);
  answers.more("varicose-veins", { since: "Sunday" });
  answers.more("varicose-veins", { side: "left" });
  expect(written.at(-1)).toMatchObject([
    { question: "varicose-veins", answer: "yes", since: "Sunday", side: "left" },
  ]);
});

it("goes by the state when that has heard, as of what another device has said since", () => {
  const { visit, written, heard, state } = slow();
  const answers = renderHook(() => useAnswers(visit)).result.current;
  answers.give([{ question: "varicose-veins", answer: "yes" }]);
  answers.more("varicose-veins", { note: "Old." });
  heard.add("e1").add("e2");
  state.answers = [{ question: "varicose-veins", answer: "yes", note: "Corrected elsewhere." }];
  const now = renderHook(() => useAnswers({ ...visit, state: { ...state } } as unknown as LiveVisit)).result
    .current;
  now.more("varicose-veins", { side: "left" });
  expect(written.at(-1)).toMatchObject([{ note: "Corrected elsewhere.", side: "left" }]);
});
