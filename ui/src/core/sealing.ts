// Unsent work at rest: each row is sealed with its author's key, which the server gives
// who is signed in and which leaves this device with them. The cipher is one that answers
// at once, so that a row is sealed before the next line runs, and that needs no secure
// context.
import { xchacha20poly1305 } from "@noble/ciphers/chacha.js";
import { bytesToUtf8, concatBytes, randomBytes, utf8ToBytes } from "@noble/ciphers/utils.js";
import type { Entry, Kept } from "./db";

let author = "";
let key: Uint8Array | undefined;

const nonceBytes = 24;
const base64 = (b: Uint8Array) => btoa(String.fromCharCode(...b));
const bytesOf = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

/** Rows of who is here as they were sealed and opened last: what waits is read again at each event, and
 * after hours without a network it is much. */
const open = new Map<string, { text: string; entry: Entry }>();

/** Whose rows are sealed and opened from now on; "" for nobody's. */
export function sealFor(who: string, keyText?: string) {
  author = who;
  open.clear();
  key = keyText ? bytesOf(keyText) : undefined;
}

/** Without a key (a session that an older program left) a row is kept as it is. */
export function sealed(e: Entry): Kept {
  if (!key || e.author !== author) return e;
  const nonce = randomBytes(nonceBytes);
  const { id, visit, event, stuck } = e;
  const cipher = xchacha20poly1305(key, nonce, utf8ToBytes(id));
  const text = cipher.encrypt(utf8ToBytes(JSON.stringify({ event, stuck })));
  const kept = { id, visit, author, sealed: base64(concatBytes(nonce, text)) };
  open.set(id, { text: kept.sealed, entry: e });
  return kept;
}

/** Lets go of rows that are no more. */
export function forgetOpened(ids: string[]) {
  for (const id of ids) open.delete(id);
}

/** The row, where it is not another's or of a key that is not here. */
export function opened(k: Kept): Entry | undefined {
  if (k.event) return { ...k, event: k.event };
  if (!key || k.author !== author || !k.sealed) return undefined;
  const before = open.get(k.id);
  if (before?.text === k.sealed) return before.entry;
  try {
    const b = bytesOf(k.sealed);
    const cipher = xchacha20poly1305(key, b.subarray(0, nonceBytes), utf8ToBytes(k.id));
    const { event, stuck } = JSON.parse(bytesToUtf8(cipher.decrypt(b.subarray(nonceBytes)))) as Entry;
    const { id, visit } = k;
    const entry = { id, visit, author, event, ...(stuck === undefined ? {} : { stuck }) };
    open.set(id, { text: k.sealed, entry });
    return entry;
  } catch {
    return undefined;
  }
}
