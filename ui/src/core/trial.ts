// The trial visit: an invented client to try a visit on. It lives in this page's memory only;
// a reload or leaving it ends it, and nothing of it is stored or sent.
import type { Schemas } from "../api/client";
import { now } from "./clock";
import type { LogEvent } from "./events";
import type { OpenedVisit } from "./openVisit";

/** The visit, its client and who countersigns there. No other visit has these ids: the
 * program's own are made of a time and chance. */
export const trial = {
  visit: "00000000-0000-7000-8000-00000000a001",
  client: "00000000-0000-7000-8000-00000000a002",
  supervisor: "00000000-0000-7000-8000-00000000a003",
};

/** Whether an id is the trial visit's or its client's. */
export const isTrial = (id: string) => id === trial.visit || id === trial.client;

let events: LogEvent[] = [];

/** What is written in the trial visit, for its other screens in this page. */
export function addToTrial(e: LogEvent) {
  events = [...events, e];
}

export function forgetTrial() {
  events = [];
}

/** The visit with what was written so far; it says what it is about and nothing of before. */
export function trialVisit(me: Pick<Schemas["Me"], "id" | "name" | "role">): OpenedVisit {
  const at = now();
  const offset_min = -new Date(at).getTimezoneOffset();
  const supervisor = {
    id: trial.supervisor,
    name: "The supervisor",
    role: "therapist",
    licensed: true,
  } as const;
  return {
    visit: {
      id: trial.visit,
      client: trial.client,
      minutes: 45,
      reason: "Stiff neck on the right",
      starts_at: new Date(at).toISOString(),
    },
    client: {
      id: trial.client,
      given_name: "Ottilie",
      family_name: "Invented",
      complaint: "Stiff neck on the right",
      height_cm: 168,
      age: 41,
      revision: 1,
    },
    context: {
      roles: { [me.id]: me.role, [trial.supervisor]: "therapist" },
      history: [],
      signs: [],
      treated: [],
      thresholds: {},
      visit: trial.visit,
      age: 41,
      height_cm: 168,
      offset_min,
      now_ms: at,
    },
    events,
    earlier: [],
    earlier_ranges: [],
    earlier_gauges: [],
    earlier_posture: [],
    earlier_drawings: [],
    entries: [],
    team: [{ ...me, licensed: me.role !== "student" }, supervisor],
    own_protocols: {},
    own_sequences: {},
    hand_uses: [],
    now_ms: at,
    offset_min,
    today: Math.floor((at + offset_min * 60_000) / 86_400_000),
  };
}
