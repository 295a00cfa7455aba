// The rows of the outbox: in the browser's database, and written ahead until they
// are there. Both keep them sealed.
import { type Entry, type Kept, tables } from "./db";
import { forgetAhead, writeAhead, writtenAhead } from "./writeAhead";
import { forgetOpened, opened, sealed } from "./sealing";

/** Writes a row ahead before it returns; the promise ends when it is stored. Where
 * the database has no room the row stays there, and is sent from there. */
export async function addRow(e: Entry) {
  const k = sealed(e);
  writeAhead(k);
  try {
    await (await tables()).put("outbox", k);
  } catch {
    return;
  }
  forgetAhead([e.id]);
}

/** All rows as they are kept. What is written ahead is read first: it may be stored in between. */
async function keptRows(): Promise<Kept[]> {
  const onTheWay = writtenAhead();
  const stored = await (await tables()).getAll("outbox");
  const ids = new Set(stored.map((r) => r.id));
  return [...stored, ...onTheWay.filter((r) => !ids.has(r.id))];
}

export interface Rows {
  rows: Entry[];
  /** Rows that only another who signs in here can open. */
  shut: number;
}

export async function allRows(): Promise<Rows> {
  const kept = await keptRows();
  const rows = kept.flatMap((k) => opened(k) ?? []);
  return { rows, shut: kept.length - rows.length };
}

/** Seals what an older program, or a moment without a key, left open. */
export async function sealRows() {
  const tx = (await tables()).transaction("outbox", "readwrite");
  const open = (await tx.store.getAll()).filter((k) => k.event);
  for (const k of open) {
    const row = opened(k);
    if (row) void tx.store.put(sealed(row));
  }
  await tx.done;
}

/** Lets rows go, or keeps them with why they were refused. */
export async function changeRows(gone: string[], refused: Entry[] = []) {
  const tx = (await tables()).transaction("outbox", "readwrite");
  await Promise.all([
    ...gone.map((id) => tx.store.delete(id)),
    ...refused.map((r) => tx.store.put(sealed(r))),
    tx.done,
  ]);
  forgetAhead([...gone, ...refused.map((r) => r.id)]);
  forgetOpened(gone);
}
