// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Entry } from "./db";
import { tables } from "./db";
import { addRow, allRows, changeRows } from "./waiting";

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
  expect(ids(await allRows())).toEqual(["a"]);
  const next = await nextPage();
  expect(ids(await next.allRows())).toEqual(["a"]);
});

it("jots nothing down for longer than it takes", async () => {
  await addRow(row("a"));
  expect(localStorage).toHaveLength(0);
  expect(ids(await allRows())).toEqual(["a"]);
  await changeRows(["a"]);
  expect(await allRows()).toEqual([]);
});

it("keeps a row that the database has no room for, and lets it go when it is sent", async () => {
  const d = await tables();
  const full = vi.spyOn(d, "put").mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  await addRow(row("a"));
  full.mockRestore();
  expect(ids(await allRows())).toEqual(["a"]);
  await changeRows(["a"]);
  expect(await allRows()).toEqual([]);
  expect(localStorage).toHaveLength(0);
});

it("holds a row where nothing can be written down", async () => {
  vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  const d = await tables();
  vi.spyOn(d, "put").mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  await addRow(row("a"));
  expect(ids(await allRows())).toEqual(["a"]);
  await changeRows(["a"]);
});

it("says a row once that is stored and still jotted, as the database has it", async () => {
  await addRow(row("a"));
  localStorage.setItem("mokren-jotted:a", JSON.stringify(row("a")));
  localStorage.setItem("mokren-jotted:b", '{"id":"b","visit":');
  await changeRows([], [{ ...row("a"), stuck: "no" }]);
  localStorage.setItem("mokren-jotted:a", JSON.stringify(row("a")));
  expect(await allRows()).toEqual([{ ...row("a"), stuck: "no" }]);
});
