// Visits that are nobody's: the trial visit and those of the practice bench. They live in this page's
// memory; nothing of them is stored with clients, or sent.
import type { Schemas } from "../api/client";
import { now } from "./clock";
import type { LogEvent } from "./events";
import type { OpenedVisit } from "./openedVisit";

/** Who practises, on whom. */
export type Practising = Pick<Schemas["Me"], "id" | "name" | "role">;

interface Local {
  open: (me: Practising) => OpenedVisit;
  events: LogEvent[];
  written?: (e: LogEvent) => void;
}

const visits = new Map<string, Local>();

/** Makes a visit known, with what was written of it so far. */
export function beginLocal(visit: string, local: Local) {
  visits.set(visit, local);
}

/** What is written in it, for its other screens in this page. */
export function addToLocal(e: LogEvent) {
  const v = visits.get(e.visit);
  if (!v) return;
  v.events = [...v.events, e];
  v.written?.(e);
}

export function forgetLocal(visit: string) {
  const v = visits.get(visit);
  if (v) v.events = [];
}

/** The visit with what was written so far. */
export function openLocal(visit: string, me: Practising): OpenedVisit {
  const v = visits.get(visit);
  if (!v) throw new Error("This visit has ended: it lived in the page that was left.");
  return { ...v.open(me), events: v.events };
}

interface Invented {
  visit: string;
  client: Pick<Schemas["Client"], "id" | "given_name" | "family_name" | "age">;
  reason: string;
  role: Schemas["Me"]["role"];
}

/** A visit of an invented client that begins now, with nothing of before. */
export function inventedVisit(me: Practising, { visit, client, reason, role }: Invented): OpenedVisit {
  const at = now();
  const offset_min = -new Date(at).getTimezoneOffset();
  const height_cm = 168;
  return {
    visit: { id: visit, client: client.id, minutes: 45, reason, starts_at: new Date(at).toISOString() },
    client: { ...client, complaint: reason, height_cm, revision: 1 },
    context: {
      roles: { [me.id]: role },
      history: [],
      signs: [],
      treated: [],
      thresholds: {},
      visit,
      age: client.age,
      height_cm,
      offset_min,
      now_ms: at,
    },
    events: [],
    earlier: [],
    earlier_ranges: [],
    earlier_gauges: [],
    earlier_posture: [],
    earlier_drawings: [],
    entries: [],
    team: [{ id: me.id, name: me.name, role, licensed: role !== "student" }],
    own_protocols: {},
    own_sequences: {},
    hand_uses: [],
    now_ms: at,
    offset_min,
    today: Math.floor((at + offset_min * 60_000) / 86_400_000),
  };
}
