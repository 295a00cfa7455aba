// An invented visit as the server gives it, for tests.
import type { Schemas } from "../api/client";

export const me = {
  id: "0190a000-0000-7000-8000-000000000001",
  name: "Ines",
  practice: "The Alder Room",
  role: "therapist",
  copy_hours: 24,
  now_ms: 0,
} as unknown as Schemas["Me"];

export const visitID = "0190a000-0000-7000-8000-000000000002";
const clientID = "0190a000-0000-7000-8000-000000000003";

/** A visit without events. */
export function openVisit(): Schemas["OpenVisit"] {
  return {
    visit: { id: visitID, starts_at: new Date().toISOString() },
    client: { id: clientID, height_cm: 172 },
    context: { carried: [], facts: [], roles: { [me.id]: me.role }, signs: [], thresholds: {}, clock_ms: 0 },
    events: [],
    earlier: [],
    entries: [],
    own_protocols: {},
    hand_uses: [],
    today: 20000,
    team: [],
    now_ms: Date.now(),
  } as unknown as Schemas["OpenVisit"];
}
