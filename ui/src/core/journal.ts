// What the core keeps of what it was told: the visits and the holds that are open. A core that is
// started anew is told it again, so that it stands where the one before it stood.
import type { Schemas } from "../api/client";

/** A question that changes what the core keeps. */
export interface Kept {
  n: number;
  name: string;
  input: unknown;
  /** By what the page asks about a visit since it was answered. */
  revision?: number;
}

/** As many as the core itself keeps open (core/bridge). */
const most = 2;

type Of = { visit: string; hold: string; revision: number };

export class Journal {
  /** By visit and by hold, the one that was opened last at the end. */
  private readonly visits = new Map<string, Kept>();
  private readonly holds = new Map<string, Kept[]>();

  /** Notes a question, if the core keeps something of it. */
  note(kept: Kept) {
    const { visit, hold } = kept.input as Of;
    if (kept.name === "visit-state") put(this.visits, visit, kept);
    else if (kept.name === "hold-open") put(this.holds, hold, [kept]);
    else if (kept.name === "hold-add") this.holds.get(hold)?.push(kept);
  }

  /** Notes the revision that a visit was given. */
  answered(n: number, answer: unknown) {
    for (const k of this.visits.values()) if (k.n === n) k.revision = (answer as Of).revision;
  }

  /** Leaves out what no core could answer. */
  forget(n: number) {
    for (const [id, k] of this.visits) if (k.n === n) this.visits.delete(id);
    for (const [id, all] of this.holds)
      this.holds.set(
        id,
        all.filter((k) => k.n !== n),
      );
  }

  /** What a new core is told, in order. A visit comes back under the revision by which the page
   * asks about it. */
  replay(): Kept[] {
    const visits = [...this.visits.values()].map((k) =>
      k.revision === undefined
        ? k
        : {
            ...k,
            name: "visit-again",
            input: { revision: k.revision, log: k.input } as Schemas["VisitAgain"],
          },
    );
    return [...visits, ...[...this.holds.values()].flat()];
  }
}

/** Puts one at the end, and drops the oldest beyond what the core keeps. */
function put<T>(map: Map<string, T>, key: string, value: T) {
  map.delete(key);
  map.set(key, value);
  for (const oldest of map.keys()) {
    if (map.size <= most) return;
    map.delete(oldest);
  }
}
