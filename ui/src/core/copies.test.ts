import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { addToCopy, forgetCopies, keepCopy, openCopy } from "./copies";
import { tables } from "./db";

const ines = { id: "1", practice: "The Alder Room", copy_hours: 24 };
const visit = {
  visit: { id: "v" },
  client: { family_name: "Secret" },
  events: [],
} as unknown as Schemas["OpenVisit"];
const hour = 3_600_000;

describe("copies of visits", () => {
  beforeEach(forgetCopies);

  it("open for who kept them, and for nobody else", async () => {
    await keepCopy(ines, "v", visit);
    expect((await openCopy(ines, "v"))?.client.family_name).toBe("Secret");
    expect(await openCopy({ ...ines, practice: "Elsewhere" }, "v")).toBeUndefined();
    await keepCopy(ines, "v", visit);
    expect(await openCopy({ ...ines, id: "2" }, "v")).toBeUndefined();
    expect(await (await tables()).getAllKeys("copies")).toEqual([]);
  });

  it("are sealed, and cannot be opened after sign-out", async () => {
    await keepCopy(ines, "v", visit);
    const d = await tables();
    const copy = await d.get("copies", "v");
    expect(new TextDecoder().decode(copy?.sealed)).not.toContain("Secret");
    await forgetCopies();
    expect(await openCopy(ines, "v")).toBeUndefined();
    expect(await d.getAllKeys("keys")).toEqual([]);
    // Even a copy that somebody put aside has no key any more.
    await d.put("copies", copy as never, "v");
    expect(await openCopy(ines, "v")).toBeUndefined();
  });

  it("are gone after the time that the practice has set", async () => {
    await keepCopy(ines, "v", visit, 1000);
    expect(await openCopy(ines, "v", 1000 + 24 * hour)).toBeDefined();
    expect(await openCopy(ines, "v", 1001 + 24 * hour)).toBeUndefined();
    await keepCopy({ ...ines, copy_hours: 0 }, "v", visit);
    expect(await openCopy(ines, "v")).toBeUndefined();
  });

  it("grow with the record", async () => {
    await keepCopy(ines, "v", visit);
    await addToCopy(ines, "v", [{ id: "e1", version: 1 } as Schemas["Event"]]);
    expect((await openCopy(ines, "v"))?.events.map((e) => e.id)).toEqual(["e1"]);
    await addToCopy(ines, "never opened", [{ id: "e1", version: 1 } as Schemas["Event"]]);
    expect(await openCopy(ines, "never opened")).toBeUndefined();
  });

  it("lose nothing when an older answer and newer events are kept at once", async () => {
    await keepCopy(ines, "v", visit);
    const event = (id: string) => [{ id, version: 1 } as Schemas["Event"]];
    await Promise.all([
      addToCopy(ines, "v", event("e1")),
      addToCopy(ines, "v", event("e2")),
      keepCopy(ines, "v", visit),
    ]);
    expect((await openCopy(ines, "v"))?.events.map((e) => e.id)).toEqual(["e1", "e2"]);
  });
});
