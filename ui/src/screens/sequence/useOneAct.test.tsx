// @vitest-environment happy-dom
import { renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { useOneAct } from "./useOneAct";

const settled = () => new Promise((done) => setTimeout(done));

it("does nothing else until the state has heard of the act", async () => {
  const heard = new Set<string>();
  const { result } = renderHook(() => useOneAct({ knows: (id) => heard.has(id) }));
  const doOne = result.current;
  const acts: string[] = [];
  const act = (name: string, wrote?: string) =>
    doOne(async () => {
      acts.push(name);
      await settled();
      return wrote;
    });
  expect(act("skip", "third begun")).toBe(true);
  expect(act("hand over")).toBe(false); // the core is still asked
  await settled();
  await settled();
  expect(act("hand over")).toBe(false); // written, and not on screen yet
  heard.add("third begun");
  expect(act("refused")).toBe(true);
  await settled();
  await settled();
  expect(act("hand over", "fourth begun")).toBe(true); // nothing was written, so nothing is waited for
  expect(acts).toEqual(["skip", "refused", "hand over"]);
});
