// The visit of a simulated client: which exercise it is, and what was done of it so far. It lives in
// this tab; a reload goes on with it.
import type { Schemas } from "../api/client";
import { now } from "./clock";
import type { LogEvent } from "./events";
import { isLocal } from "./localIDs";
import { beginLocal, inventedVisit } from "./localVisit";

export interface BenchVisit {
  visit: string;
  client: string;
  input: Schemas["ExerciseIn"];
  coach: "speaks" | "silent";
  assignment?: string;
  item?: number;
  /** By now(): a hold's times count from its own beginning. */
  began: number;
  story: string;
  /** Where the hold of a grading is. */
  place: Schemas["BenchPlace"];
  events: LogEvent[];
}

const key = "bench-visit";
let current: BenchVisit | undefined;

function keep() {
  if (current) sessionStorage.setItem(key, JSON.stringify(current));
}

function restore() {
  const kept = sessionStorage.getItem(key);
  if (kept && !current) known(JSON.parse(kept) as BenchVisit);
}

function known(v: BenchVisit) {
  current = v;
  const reason = v.story;
  beginLocal(v.visit, {
    events: v.events,
    open: (me) =>
      inventedVisit(me, {
        visit: v.visit,
        client: { id: v.client, given_name: "Simulated", family_name: "client", age: 41 },
        reason,
        // With a simulated client everybody decides alone.
        role: "therapist",
      }),
    written: (e) => {
      v.events = [...v.events, e];
      keep();
    },
  });
}

/** An id of this tab alone. */
const newID = (of: string) =>
  `00000000-0000-7000-8000-${of}${Math.floor(Math.random() * 0xfffffffffff)
    .toString(16)
    .padStart(11, "0")}`;

export type BeginBench = Omit<BenchVisit, "visit" | "client" | "began" | "events">;

/** Begins one; the one before it is forgotten. */
export function beginBenchVisit(of: BeginBench): BenchVisit {
  const v = { ...of, visit: newID("b"), client: newID("c"), began: now(), events: [] };
  known(v);
  keep();
  return v;
}

/** The bench's visit of an id, if it is one. */
export function ofBench(visit: string): BenchVisit | undefined {
  if (!isLocal(visit)) return undefined;
  restore();
  return current?.visit === visit ? current : undefined;
}

/** Who acts in a visit: with a simulated client everybody decides alone. */
export const actingIn = <M extends Pick<Schemas["Me"], "role" | "supervised">>(visit: string, me: M): M =>
  ofBench(visit) ? { ...me, role: "therapist", supervised: false } : me;

/** What was done with its client. */
export function changeBench(visit: string, change: Partial<Pick<BenchVisit, "input" | "began">>) {
  if (current?.visit !== visit) return;
  Object.assign(current, change);
  keep();
}

export function forgetBench() {
  current = undefined;
  sessionStorage.removeItem(key);
}
