// Copies of visits, for opening one in an outage. They are
// sealed with a key that never leaves the browser and that sign-out destroys,
// belong to one person of one practice, and are gone after the time that the
// practice has set.
import type { Schemas } from "../api/client";
import { tables } from "./db";

type Me = Pick<Schemas["Me"], "id" | "practice" | "copy_hours">;

const owner = (me: Me) => `${me.practice}:${me.id}`;
const hour = 3_600_000;

/** Over plain HTTP from another device there is no sealing, so no copy. */
const canSeal = () => !!globalThis.crypto?.subtle;

async function keyOf(who: string): Promise<CryptoKey> {
  const d = await tables();
  const have = await d.get("keys", who);
  if (have) return have;
  const key = await crypto.subtle.generateKey({ name: "AES-GCM", length: 256 }, false, [
    "encrypt",
    "decrypt",
  ]);
  await d.put("keys", key, who);
  return key;
}

/** One at a time, in every tab: what two write at once must both be there. */
let last: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const locks = globalThis.navigator?.locks;
  const mine = last.then(async () => (locks ? await locks.request("mokren-copies", work) : await work()));
  last = mine.catch(() => undefined);
  return mine;
}

/** Keeps what the server gave. An answer may be older than what this browser
 * has sent since, so what the copy knows beyond it stays. */
export const keepCopy = (me: Me, visit: string, v: Schemas["OpenVisit"], now = Date.now()) =>
  inTurn(async () => {
    const have = await unseal(me, visit);
    await seal(me, visit, have ? { ...v, events: joined(v.events, have.events) } : v, now);
  });

/** The copy of a visit, if this person kept one and its time is not over. */
export const openCopy = (me: Me, visit: string, now = Date.now()) =>
  inTurn(async () => {
    await tidyCopies(me, now);
    return unseal(me, visit);
  });

/** Adds what the record has taken since, where there is a copy at all. */
export const addToCopy = (me: Me, visit: string, events: Schemas["Event"][]) =>
  inTurn(async () => {
    await tidyCopies(me);
    const have = await unseal(me, visit);
    if (have) await seal(me, visit, { ...have, events: joined(events, have.events) }, Date.now());
  });

/** Events by id; what is newer counts. */
function joined(newer: Schemas["Event"][], older: Schemas["Event"][]) {
  return [...new Map([...older, ...newer].map((e) => [e.id, e])).values()];
}

async function seal(me: Me, visit: string, v: Schemas["OpenVisit"], now: number) {
  if (!canSeal() || me.copy_hours === 0) return;
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const text = new TextEncoder().encode(JSON.stringify(v));
  const sealed = await crypto.subtle.encrypt({ name: "AES-GCM", iv }, await keyOf(owner(me)), text);
  await (await tables()).put("copies", { owner: owner(me), keptMS: now, iv, sealed }, visit);
}

async function unseal(me: Me, visit: string): Promise<Schemas["OpenVisit"] | undefined> {
  const c = await (await tables()).get("copies", visit);
  if (!c || c.owner !== owner(me) || !canSeal()) return undefined;
  try {
    const key = await keyOf(owner(me));
    const open = await crypto.subtle.decrypt({ name: "AES-GCM", iv: c.iv }, key, c.sealed);
    return JSON.parse(new TextDecoder().decode(open)) as Schemas["OpenVisit"];
  } catch {
    return undefined; // sealed with a key that is gone
  }
}

/** Takes away what is another's or too old. */
export async function tidyCopies(me: Me, now = Date.now()) {
  const d = await tables();
  for (const visit of await d.getAllKeys("copies")) {
    const c = await d.get("copies", visit);
    if (c && (c.owner !== owner(me) || now - c.keptMS > me.copy_hours * hour))
      await d.delete("copies", visit);
  }
}

/** Sign-out: the key first, so that nothing can be opened whatever happens next. */
export async function forgetCopies() {
  const d = await tables();
  await d.clear("keys");
  await d.clear("copies");
}
