// The browser's own database: what waits to be sent, and sealed copies of
// visits.
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Schemas } from "../api/client";

/** An event that waits to be sent. */
export interface Entry {
  id: string;
  visit: string;
  author: string;
  event: Schemas["Event"];
  /** Why the server would not take it; it stays here and is shown. */
  stuck?: string;
}

/** The same as it is kept: sealed to its author, or as an older program left it. */
export interface Kept extends Pick<Entry, "id" | "visit" | "author" | "stuck"> {
  event?: Entry["event"];
  /** Nonce and text, base64. */
  sealed?: string;
}

/** A visit as the server gave it, sealed. */
interface Copy {
  owner: string;
  keptMS: number;
  iv: Uint8Array<ArrayBuffer>;
  sealed: ArrayBuffer;
}

interface Tables extends DBSchema {
  outbox: { key: string; value: Kept; indexes: { visit: string } };
  copies: { key: string; value: Copy };
  keys: { key: string; value: CryptoKey };
}

let db: Promise<IDBPDatabase<Tables>> | undefined;

export function tables(): Promise<IDBPDatabase<Tables>> {
  db ??= openDB<Tables>("mokren", 2, {
    upgrade(d, before) {
      if (before < 1) d.createObjectStore("outbox", { keyPath: "id" }).createIndex("visit", "visit");
      // The first version kept visits open to whoever came next.
      if ((d.objectStoreNames as DOMStringList).contains("visits")) d.deleteObjectStore("visits" as never);
      d.createObjectStore("copies");
      d.createObjectStore("keys");
    },
  });
  return db;
}
