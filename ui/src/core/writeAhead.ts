// A row that is on its way into the browser's database. The database answers
// later, and a page that ends before it does would take the row with it; this
// store has the row before the next line runs.
import type { Kept } from "./db";

const prefix = "mokren-jotted:";

/** What this page is at: there even where the store is full or switched off. */
const held = new Map<string, Kept>();

export function writeAhead(e: Kept) {
  held.set(e.id, e);
  try {
    localStorage.setItem(prefix + e.id, JSON.stringify(e));
  } catch {
    // It is held, as long as the page lasts.
  }
}

export function forgetAhead(ids: string[]) {
  for (const id of ids) {
    held.delete(id);
    globalThis.localStorage?.removeItem(prefix + id);
  }
}

/** What this page is at, and what an earlier one could not bring to an end. */
export function writtenAhead(): Kept[] {
  const store = globalThis.localStorage;
  const keys = Array.from({ length: store?.length ?? 0 }, (_, i) => store.key(i) ?? "");
  const left = keys.filter((k) => k.startsWith(prefix) && !held.has(k.slice(prefix.length)));
  return [...held.values(), ...left.flatMap((k) => read(store.getItem(k)))];
}

function read(text: string | null): Kept[] {
  try {
    return text ? [JSON.parse(text) as Kept] : [];
  } catch {
    return []; // half of it was written
  }
}
