// @vitest-environment happy-dom
import { renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { useWhole } from "./useWhole";

it("goes on from what was written until the state has heard of it", () => {
  const heard = new Set<string>();
  const { result } = renderHook(() => useWhole<number[]>({ knows: (id) => heard.has(id) }));
  const whole = result.current;
  expect(whole.of("left", [])).toEqual([]);
  whole.wrote("left", [70, 71], "second");
  expect(whole.of("left", [70])).toEqual([70, 71]);
  expect(whole.of("right", [])).toEqual([]);
  heard.add("second");
  // Another device may have written since.
  expect(whole.of("left", [70, 71, 73])).toEqual([70, 71, 73]);
});
