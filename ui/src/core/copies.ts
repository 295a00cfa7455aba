// Copies of visits, for opening one when there is no answer at all. They are
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

export async function keepCopy(me: Me, visit: string, v: Schemas["OpenVisit"], now = Date.now()) {
  if (!canSeal() || me.copy_hours === 0) return;
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const text = new TextEncoder().encode(JSON.stringify(v));
  const sealed = await crypto.subtle.encrypt({ name: "AES-GCM", iv }, await keyOf(owner(me)), text);
  await (await tables()).put("copies", { owner: owner(me), keptMS: now, iv, sealed }, visit);
}

/** The copy of a visit, if this person kept one and its time is not over. */
export async function openCopy(
  me: Me,
  visit: string,
  now = Date.now(),
): Promise<Schemas["OpenVisit"] | undefined> {
  await tidyCopies(me, now);
  const c = await (await tables()).get("copies", visit);
  if (!c || !canSeal()) return undefined;
  try {
    const key = await keyOf(owner(me));
    const open = await crypto.subtle.decrypt({ name: "AES-GCM", iv: c.iv }, key, c.sealed);
    return JSON.parse(new TextDecoder().decode(open)) as Schemas["OpenVisit"];
  } catch {
    return undefined; // sealed with a key that is gone
  }
}

/** Whether there is a copy at all, so that a new answer is worth adding to it. */
export async function addToCopy(me: Me, visit: string, events: Schemas["Event"][]) {
  const have = await openCopy(me, visit);
  if (!have) return;
  const known = new Map(have.events.map((e) => [e.id, e]));
  for (const e of events) known.set(e.id, e);
  await keepCopy(me, visit, { ...have, events: [...known.values()] });
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
