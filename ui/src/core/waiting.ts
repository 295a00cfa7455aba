// The rows of the outbox: in the browser's database, and jotted down until they
// are there.
import { type Entry, tables } from "./db";
import { jot, jotted, unjot } from "./jotted";

/** Jots a row down before it returns; the promise ends when it is stored. Where
 * the database has no room the row stays jotted, and is sent from there. */
export async function addRow(e: Entry) {
  jot(e);
  try {
    await (await tables()).put("outbox", e);
  } catch {
    return;
  }
  unjot([e.id]);
}

/** All rows. What is jotted is read first: it may be stored in between. */
export async function allRows(): Promise<Entry[]> {
  const onTheWay = jotted();
  const stored = await (await tables()).getAll("outbox");
  const ids = new Set(stored.map((r) => r.id));
  return [...stored, ...onTheWay.filter((r) => !ids.has(r.id))];
}

/** Lets rows go, or keeps them with why they were refused. */
export async function changeRows(gone: string[], refused: Entry[] = []) {
  const tx = (await tables()).transaction("outbox", "readwrite");
  await Promise.all([
    ...gone.map((id) => tx.store.delete(id)),
    ...refused.map((r) => tx.store.put(r)),
    tx.done,
  ]);
  unjot([...gone, ...refused.map((r) => r.id)]);
}
