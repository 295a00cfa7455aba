// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from "vitest";
import { me } from "../testing/visit";
import { forgetMe, keepMe, lastMe } from "./lastMe";

const hour = 3_600_000;

describe("who was signed in last", () => {
  beforeEach(() => localStorage.clear());

  it("lasts as long as copies may, and not a moment longer", () => {
    keepMe(me, 1000);
    expect(lastMe(1000 + 24 * hour)?.id).toBe(me.id);
    expect(lastMe(1001 + 24 * hour)).toBeUndefined();
  });

  it("is gone with the sign-out, and where no copies are kept", () => {
    keepMe(me, 1000);
    forgetMe();
    expect(lastMe(1000)).toBeUndefined();
    keepMe(me, 1000);
    keepMe({ ...me, copy_hours: 0 }, 2000);
    expect(lastMe(2000)).toBeUndefined();
  });
});
