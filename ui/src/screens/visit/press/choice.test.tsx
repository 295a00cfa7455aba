// @vitest-environment happy-dom
import { act, renderHook } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
import { missing, useHoldChoice } from "./choice";

const point = {
  point: "p",
  contacts: [{ id: "elbow", why: "A nerve lies there." }, { id: "thumb-pad" }, { id: "knuckle" }],
  positions: [{ id: "prone" }, { id: "supine" }],
} as unknown as Schemas["Point"];
const hold = (over: object) =>
  ({ point: "p", start: { protocol: "pulses" }, ...over }) as unknown as Schemas["Hold"];

describe("what is chosen before a hold", () => {
  it("offers what was chosen last here, where it may still be used", () => {
    const before = [hold({ contact: "elbow", position: "supine", muscle_set: "slack" })];
    const { result } = renderHook(() => useHoldChoice(before, point, "pulses"));
    expect(result.current.chosen).toEqual({ position: "supine", muscle_set: "slack" });
  });
  it("does not set the muscle as another protocol had it", () => {
    const before = [hold({ contact: "knuckle", muscle_set: "slack" })];
    const { result } = renderHook(() => useHoldChoice(before, point, "graded-stages"));
    expect(result.current.chosen.contact).toBe("knuckle");
    expect(result.current.chosen.muscle_set).toBeUndefined();
  });
  it("keeps what is chosen now above that", () => {
    const { result } = renderHook(() => useHoldChoice([hold({ contact: "knuckle" })], point));
    act(() => result.current.choose({ contact: "thumb-pad" }));
    act(() => result.current.choose({ position: "prone" }));
    expect(result.current.chosen).toMatchObject({ contact: "thumb-pad", position: "prone" });
  });
  it("begins with the core's offer, where nothing was chosen here", () => {
    const offer = {
      contact: "thumb-pad",
      position: "prone",
      muscle_set: "tension",
    } as Schemas["Offer"];
    const fresh = renderHook(() => useHoldChoice([], point, "pulses", offer));
    expect(fresh.result.current.chosen).toEqual({
      contact: "thumb-pad",
      position: "prone",
      muscle_set: "tension",
    });
    const again = renderHook(() => useHoldChoice([hold({ contact: "knuckle" })], point, "pulses", offer));
    expect(again.result.current.chosen.contact).toBe("knuckle");
    expect(again.result.current.chosen.position).toBe("prone");
  });
  it("names what is still open", () => {
    expect(missing({}, true, true)).toBe(
      "Choose a contact, a position, tension or slack, and who countersigns.",
    );
    expect(missing({ contact: "knuckle", position: "prone" }, false, false)).toBe("");
  });
});
