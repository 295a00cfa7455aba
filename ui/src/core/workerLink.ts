// The page's side of the core's worker. Every question is answered by message. A worker that owes
// an answer and says nothing for two seconds (six over its first, which brings it to speed, and longer
// on a device on which it was slow to begin) is ended; a new one is told what the last one kept,
// and then what is still asked. Nobody who asked notices more than that it took a while; what a
// therapist does is in the log whatever the core answers (useHold.ts).
import type { Said, Question } from "./coreWorker";
import { type Answers, okOf } from "./core";
import { Journal } from "./journal";

/** So long a worker may be silent. */
export const silentMS = 2000;
/** And so long over its first answer: what it is made of is compiled as it is used. */
export const freshMS = 6000;
/** A device on which it takes long to begin is given so many times that, up to a limit. */
const timesBegun = 2;
const mostMS = 10_000;
/** A timer that comes so late says that the page itself stood still, not the worker. */
const lateMS = 500;

/** What is needed of a Worker. */
export type WorkerLike = Pick<Worker, "postMessage" | "terminate" | "onmessage" | "onerror">;

interface Asked {
  n: number;
  name: string;
  input: unknown;
  done: (answer: unknown) => void;
  fail: (e: unknown) => void;
  /** How many workers fell silent over it. */
  silenced: number;
}

/** A question over which so many fell silent is given up. */
const mostSilenced = 3;

/** The worker could not be started at all. */
const failure = (why: string) => new Error(`The core could not be loaded. ${why}`);

export class WorkerLink implements Answers {
  private worker?: WorkerLike;
  private readonly journal = new Journal();
  /** What is asked and not answered, in the order of asking. */
  private readonly asked = new Map<number, Asked>();
  private n = 0;
  /** Since when the worker, which is there, has said nothing. */
  private quietSince = 0;
  private timer?: ReturnType<typeof setTimeout>;
  /** Twice as long after every restart without an answer: a question may just be a long one. */
  private patience = silentMS;
  private there = false;
  /** Whether this worker has answered at all. */
  private warm = false;
  /** When it was started, and how long that took: how slow the device is just now. */
  private begunAt = 0;
  private tookMS = 0;

  constructor(private readonly start: () => WorkerLike) {
    this.begin();
  }

  ask(name: string, input: unknown): Promise<unknown> {
    return new Promise((done, fail) => {
      const a: Asked = { n: ++this.n, name, input, done, fail, silenced: 0 };
      this.asked.set(a.n, a);
      this.journal.note({ n: a.n, name, input });
      if (!this.worker) this.begin();
      else this.tell(a);
    });
  }

  /** Whether an answer is on its way. */
  get busy() {
    return this.asked.size > 0;
  }

  /** Starts a worker and tells it what the last one kept and what is still asked. */
  private begin() {
    performance.mark("core-begun");
    const worker = this.start();
    this.worker = worker;
    this.there = this.warm = false;
    this.begunAt = performance.now();
    worker.onmessage = ({ data }: MessageEvent<Said>) => {
      if (worker === this.worker) this.heard(data);
    };
    worker.onerror = () => {
      if (worker === this.worker && !this.there) this.failed("");
    };
    const again = this.journal.replay();
    const told = new Set(again.map((k) => k.n));
    for (const k of [...again, ...[...this.asked.values()].filter((a) => !told.has(a.n))]) this.tell(k);
  }

  private tell({ n, name, input }: Pick<Asked, "n" | "name" | "input">) {
    this.worker?.postMessage({ n, name, json: JSON.stringify(input) } satisfies Question);
    this.watch();
  }

  private heard(said: Said) {
    if ("failed" in said) return this.failed(said.failed);
    this.quietSince = performance.now();
    if ("ready" in said) {
      this.there = true;
      this.tookMS = this.quietSince - this.begunAt;
      performance.mark("core-there");
      return this.watch();
    }
    this.patience = silentMS;
    this.warmed();
    if (said.n === 1) performance.mark("core-answered");
    const a = this.asked.get(said.n);
    if (!a) return; // told again to a new worker
    this.asked.delete(said.n);
    try {
      const ok = okOf(said.answer);
      this.journal.answered(said.n, ok);
      a.done(ok);
    } catch (e) {
      a.fail(e);
    }
  }

  /** From its first answer on a worker is watched more closely. */
  private warmed() {
    if (this.warm) return;
    this.warm = true;
    clearTimeout(this.timer);
    this.timer = undefined;
    this.watch();
  }

  /** Watches a worker that is there and owes an answer. */
  private watch() {
    if (this.timer !== undefined || !this.there || this.asked.size === 0) return;
    const slow = Math.min(mostMS, timesBegun * this.tookMS);
    const patience = Math.max(this.patience, slow, this.warm ? 0 : freshMS);
    if (this.quietSince + patience < performance.now()) this.quietSince = performance.now();
    const due = this.quietSince + patience;
    this.timer = setTimeout(() => {
      this.timer = undefined;
      const now = performance.now();
      if (now > due + lateMS) this.quietSince = now;
      else if (this.asked.size > 0 && now - this.quietSince >= patience) return this.restart();
      this.watch();
    }, due - performance.now());
  }

  private restart() {
    this.worker?.terminate();
    this.patience *= 2;
    // Answers come in the order of the questions: it was busy with the first.
    const [first] = this.asked.values();
    if (first && ++first.silenced >= mostSilenced) {
      this.asked.delete(first.n);
      this.journal.forget(first.n);
      first.fail(new Error("The core gave no answer. Reload the page."));
    }
    this.begin();
  }

  /** Everybody who waits is told; the next question tries again. */
  private failed(why: string) {
    this.worker?.terminate();
    this.worker = undefined;
    const all = [...this.asked.values()];
    this.asked.clear();
    for (const a of all) a.fail(failure(why));
  }
}
