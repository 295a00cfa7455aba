// Who was signed in last on this device, so that a bookmark opens without the
// network. It holds no health data, lasts as long as copies may, and is gone with
// them.
import type { Schemas } from "../api/client";

type Me = Schemas["Me"];

const place = "mokren.me";
const hour = 3_600_000;

interface Kept {
  me: Me;
  keptMS: number;
}

export function keepMe(me: Me, now = Date.now()) {
  try {
    if (me.copy_hours === 0) forgetMe();
    else localStorage.setItem(place, JSON.stringify({ me, keptMS: now } satisfies Kept));
  } catch {
    // a device that keeps nothing opens nothing without the network
  }
}

/** The one who was signed in, while copies of visits may still be opened. */
export function lastMe(now = Date.now()): Me | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? "null") as Kept | null;
    if (!kept || now - kept.keptMS > kept.me.copy_hours * hour) return undefined;
    return kept.me;
  } catch {
    return undefined;
  }
}

export function forgetMe() {
  try {
    localStorage.removeItem(place);
  } catch {
    // nothing was kept
  }
}
