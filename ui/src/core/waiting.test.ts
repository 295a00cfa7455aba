// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Entry } from "./db";
import { tables } from "./db";
import { sealFor } from "./sealing";
import { addRow, allRows, changeRows, sealRows } from "./waiting";

const row = (id: string): Entry => ({ id, visit: "v", author: "ines", event: { id } as Entry["event"] });
const ids = (rows: Entry[]) => rows.map((r) => r.id).sort();

/** What the next page would find, if this one ended now. */
async function nextPage() {
  vi.resetModules();
  return import("./waiting");
}

beforeEach(async () => {
  localStorage.clear();
  await (await tables()).clear("outbox");
});
afterEach(() => void vi.restoreAllMocks());

it("has a row before the database has answered, for this page and the next", async () => {
  const d = await tables();
  vi.spyOn(d, "put").mockReturnValue(new Promise(() => undefined));
  void addRow(row("a"));
  expect(ids((await allRows()).rows)).toEqual(["a"]);
  const next = await nextPage();
  expect(ids((await next.allRows()).rows)).toEqual(["a"]);
});

it("keeps nothing ahead for longer than it takes", async () => {
  await addRow(row("a"));
  expect(localStorage).toHaveLength(0);
  expect(ids((await allRows()).rows)).toEqual(["a"]);
  await changeRows(["a"]);
  expect((await allRows()).rows).toEqual([]);
});

it("keeps a row that the database has no room for, and lets it go when it is sent", async () => {
  const d = await tables();
  const full = vi.spyOn(d, "put").mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  await addRow(row("a"));
  full.mockRestore();
  expect(ids((await allRows()).rows)).toEqual(["a"]);
  await changeRows(["a"]);
  expect((await allRows()).rows).toEqual([]);
  expect(localStorage).toHaveLength(0);
});

it("holds a row where nothing can be written down", async () => {
  vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  const d = await tables();
  vi.spyOn(d, "put").mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  await addRow(row("a"));
  expect(ids((await allRows()).rows)).toEqual(["a"]);
  await changeRows(["a"]);
});

it("says a row once that is stored and still written ahead, as the database has it", async () => {
  await addRow(row("a"));
  localStorage.setItem("mokren-jotted:a", JSON.stringify(row("a")));
  localStorage.setItem("mokren-jotted:b", '{"id":"b","visit":');
  await changeRows([], [{ ...row("a"), stuck: "no" }]);
  localStorage.setItem("mokren-jotted:a", JSON.stringify(row("a")));
  expect((await allRows()).rows).toEqual([{ ...row("a"), stuck: "no" }]);
});

describe("sealed rows", () => {
  const keyOf = (byte: number) => btoa(String.fromCharCode(byte).repeat(32));
  const secret = {
    ...row("a"),
    event: { id: "a", body: { text: "new weakness" } } as unknown as Entry["event"],
  };
  const atRest = async () => JSON.stringify([await (await tables()).getAll("outbox"), { ...localStorage }]);
  afterEach(() => sealFor(""));

  it("are of no use to whoever reads the storage, written ahead or stored", async () => {
    sealFor("ines", keyOf(1));
    const d = await tables();
    vi.spyOn(d, "put").mockReturnValueOnce(new Promise(() => undefined));
    void addRow(secret);
    expect(localStorage).toHaveLength(1);
    expect(await atRest()).not.toContain("weakness");
    vi.restoreAllMocks();
    await addRow(secret);
    await changeRows([], [{ ...secret, stuck: "weakness: refused" }]);
    expect(await atRest()).not.toContain("weakness");
    expect((await allRows()).rows).toEqual([{ ...secret, stuck: "weakness: refused" }]);
  });

  it("wait unopened for their author, who finds them after a sign-out and a new password", async () => {
    sealFor("ines", keyOf(1));
    await addRow(secret);
    sealFor("");
    expect(await allRows()).toEqual({ rows: [], shut: 1 });
    sealFor("noor", keyOf(2));
    expect(await allRows()).toEqual({ rows: [], shut: 1 });
    sealFor("ines", keyOf(2));
    expect(await allRows()).toEqual({ rows: [], shut: 1 });
    sealFor("ines", keyOf(1));
    expect(await allRows()).toEqual({ rows: [secret], shut: 0 });
  });

  it("are made of what an older program left open, each by its author", async () => {
    await addRow(secret);
    await addRow({ ...row("b"), author: "noor" });
    sealFor("ines", keyOf(1));
    await sealRows();
    const kept = await (await tables()).getAll("outbox");
    expect(kept.map((k) => [k.author, !!k.event])).toEqual([
      ["ines", false],
      ["noor", true],
    ]);
    expect(ids((await allRows()).rows)).toEqual(["a", "b"]);
  });
});

it("opens a sealed row once, and for its author alone", async () => {
  const keyOf = (n: number) => btoa(String.fromCharCode(...new Uint8Array(32).fill(n)));
  sealFor("ines", keyOf(1));
  await addRow(row("a"));
  const first = (await allRows()).rows[0];
  expect(first?.event.id).toBe("a");
  expect((await allRows()).rows[0]).toBe(first);
  sealFor("tomas", keyOf(2));
  expect(await allRows()).toEqual({ rows: [], shut: 1 });
  sealFor("ines", keyOf(1));
  const again = (await allRows()).rows[0];
  expect(again).toEqual(first);
  await changeRows([], [{ ...row("a"), stuck: "no" }]);
  expect((await allRows()).rows[0]?.stuck).toBe("no");
  await changeRows(["a"]);
  expect((await allRows()).rows).toEqual([]);
  sealFor("");
});
