import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Said, Question } from "./coreWorker";
import { freshMS, silentMS, WorkerLink, type WorkerLike } from "./workerLink";

/** A worker that answers what it is told with its name and number, until it falls silent. */
class Fake implements WorkerLike {
  static all: Fake[] = [];
  onmessage: Worker["onmessage"] = null;
  onerror: Worker["onerror"] = null;
  told: Question[] = [];
  /** Those that are made are silent from the beginning. */
  static born = false;
  silent = Fake.born;
  ended = false;

  constructor() {
    Fake.all.push(this);
  }

  say(data: Said) {
    this.onmessage?.call(this as unknown as Worker, { data } as MessageEvent);
  }

  postMessage(told: Question) {
    this.told.push(told);
    if (!this.silent) queueMicrotask(() => this.answer(told));
  }

  answer({ n, name }: Question) {
    if (!this.silent)
      this.say({ n, answer: JSON.stringify({ ok: { name, revision: 7, by: Fake.all.length } }) });
  }

  terminate() {
    this.ended = true;
  }
}

const names = (f?: Fake) => f?.told.map((t) => t.name);
const waits = (ms: number) => vi.advanceTimersByTimeAsync(ms);

function begin() {
  const link = new WorkerLink(() => new Fake());
  const [first] = Fake.all;
  first?.say({ ready: true });
  return { link, first: first as Fake };
}

describe("the core's worker", () => {
  beforeEach(() => {
    Fake.all = [];
    Fake.born = false;
    vi.useFakeTimers();
  });
  afterEach(() => {
    vi.restoreAllMocks();
    vi.useRealTimers();
  });

  it("answers, and is left alone when nothing is asked", async () => {
    const { link, first } = begin();
    expect(await link.ask("hurts", {})).toMatchObject({ name: "hurts", by: 1 });
    await waits(silentMS * 5);
    expect(first.ended).toBe(false);
  });

  it("is ended when it owes an answer and is silent; the next is told what was kept", async () => {
    const { link, first } = begin();
    await link.ask("visit-state", { visit: "v" });
    await link.ask("hold-open", { hold: "h" });
    await link.ask("hold-add", { hold: "h", event: 1 });
    await link.ask("hold-look", { hold: "h" });
    first.silent = true;
    const added = link.ask("hold-add", { hold: "h", event: 2 });
    const looked = link.ask("hold-look", { hold: "h" });
    await waits(silentMS - 1);
    expect(first.ended).toBe(false);
    await waits(1);
    expect(first.ended).toBe(true);
    expect(await added).toMatchObject({ name: "hold-add", by: 2 });
    expect(await looked).toMatchObject({ by: 2 });
    expect(names(Fake.all[1])).toEqual(["visit-again", "hold-open", "hold-add", "hold-add", "hold-look"]);
    expect(JSON.parse(Fake.all[1]?.told[0]?.json ?? "")).toEqual({ revision: 7, log: { visit: "v" } });
  });

  it("does not blame a worker while it loads", async () => {
    Fake.born = true;
    const link = new WorkerLink(() => new Fake());
    void link.ask("hurts", {});
    await waits(silentMS * 4);
    expect(Fake.all.map((f) => f.ended)).toEqual([false]);
  });

  it("gives a worker that has just begun longer for its first answer", async () => {
    const { link, first } = begin();
    first.silent = true;
    void link.ask("hurts", {});
    await waits(freshMS - 1);
    expect(first.ended).toBe(false);
    await waits(1);
    expect(first.ended).toBe(true);
  });

  it("gives a device that is slow to begin as much longer", async () => {
    const link = new WorkerLink(() => new Fake());
    const [first] = Fake.all as [Fake];
    await waits(silentMS);
    first.say({ ready: true });
    await link.ask("hurts", {});
    first.silent = true;
    void link.ask("hurts", {});
    await waits(silentMS * 2 - 1);
    expect(first.ended).toBe(false);
    await waits(1);
    expect(first.ended).toBe(true);
  });

  it("does not blame a worker when the page itself stood still", async () => {
    const { link, first } = begin();
    await link.ask("hurts", {});
    first.silent = true;
    void link.ask("hurts", {});
    await waits(silentMS - 100);
    const slept = performance.now() + 60_000;
    vi.spyOn(performance, "now").mockReturnValue(slept);
    await waits(100);
    expect(first.ended).toBe(false);
    vi.spyOn(performance, "now").mockReturnValue(slept + silentMS);
    await waits(silentMS);
    expect(first.ended).toBe(true);
  });

  it("gives up a question over which three fell silent, and goes on without it", async () => {
    const { link, first } = begin();
    await link.ask("hold-open", { hold: "h" });
    first.silent = true;
    Fake.born = true;
    const bad = link.ask("hold-add", { hold: "h", event: "bad" }).catch((e: Error) => e.message);
    for (const patience of [silentMS, freshMS, silentMS * 4]) {
      await waits(patience);
      Fake.all.at(-1)?.say({ ready: true });
    }
    expect(await bad).toContain("gave no answer");
    expect(names(Fake.all.at(-1))).toEqual(["hold-open"]);
  });

  it("fails everybody when it cannot be loaded, and is loaded again at the next question", async () => {
    const link = new WorkerLink(() => new Fake());
    const [first] = Fake.all as [Fake];
    first.silent = true;
    const asked = link.ask("hurts", {}).catch((e: Error) => e.message);
    first.say({ failed: "No network." });
    expect(await asked).toContain("could not be loaded");
    expect(await link.ask("hurts", {})).toMatchObject({ by: 2 });
  });

  it("keeps no more visits than the core does", async () => {
    const { link, first } = begin();
    for (const visit of ["a", "b", "c"]) await link.ask("visit-state", { visit });
    first.silent = true;
    void link.ask("hurts", {});
    await waits(silentMS);
    expect(Fake.all[1]?.told.map((t) => JSON.parse(t.json).log?.visit)).toEqual(["b", "c", undefined]);
  });
});
