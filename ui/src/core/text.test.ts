import { describe, expect, it } from "vitest";
import { wellFormed, wellFormedAll } from "./text";

describe("text that a record can keep", () => {
  it("has whole characters and no NUL", () => {
    expect(wellFormed("a\ud83d b")).toBe("a\ufffd b");
    expect(wellFormed("\udc00x")).toBe("\ufffdx");
    expect(wellFormed("a\0b")).toBe("ab");
    expect(wellFormed("whole \u{1F600} é")).toBe("whole \u{1F600} é");
  });
  it("also deep in a body", () => {
    expect(wellFormedAll({ a: ["x\0", 1, null], b: { c: "\ud83d" }, d: undefined })).toEqual({
      a: ["x", 1, null],
      b: { c: "\ufffd" },
      d: undefined,
    });
  });
});
