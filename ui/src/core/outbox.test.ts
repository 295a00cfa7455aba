import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it, vi } from "vitest";

type Sent = { id: string; type: string; body: { text?: string } };

// A stand-in for the server: it can be cut off, refuse one event or all of them
// for good, and find a batch too large or too slow.
const server = {
  status: 0 as number,
  up: true,
  largest: Number.POSITIVE_INFINITY,
  slowest: Number.POSITIVE_INFINITY,
  bad: new Set<string>(),
  got: [] as string[],
  batches: [] as number[],
};
vi.mock("../api/client", () => {
  class Problem extends Error {
    constructor(
      readonly status: number,
      message: string,
    ) {
      super(message);
    }
  }
  return {
    Problem,
    must: async (p: Promise<unknown>) => p,
    api: {
      POST: async (_: string, o: { body: { events: Sent[] } }) => {
        const bytes = JSON.stringify(o.body).length;
        server.batches.push(bytes);
        if (!server.up) throw new Problem(0, "no connection");
        if (server.status) throw new Problem(server.status, "refused as a whole");
        if (bytes > server.largest) throw new Problem(413, "too large");
        if (bytes > server.slowest) throw new Problem(408, "too slow");
        const receipts = o.body.events.map((e) =>
          server.bad.has(e.id)
            ? { id: e.id, result: "refused", reason: "$.seq: allowed: more" }
            : { id: e.id, result: "stored" },
        );
        server.got.push(...o.body.events.filter((e) => !server.bad.has(e.id)).map((e) => e.id));
        return { events: o.body.events, receipts, version: 1, now_ms: Date.now() };
      },
    },
  };
});

const { outbox, nextSeq } = await import("./outbox");
const { tables } = await import("./db");
const { uuidv7 } = await import("./ids");

const event = (author: string, text = "x") => ({
  id: uuidv7(),
  client: uuidv7(),
  visit: "v",
  author,
  device: "d",
  seq: nextSeq(),
  device_ms: Date.now(),
  seen: 0,
  schema: 1,
  type: "note-written",
  body: { text },
});
interface Seen {
  waiting: number;
  others: number;
  stuck: string[];
  online: boolean;
}
const status = () =>
  new Promise<Seen>((done) => {
    outbox.watch(done)();
  });

/** Waits until the status is as wanted. */
const until = (want: (s: Seen) => boolean) =>
  vi.waitUntil(async () => want(await status()), { timeout: 5000 });

describe("outbox", () => {
  beforeEach(async () => {
    outbox.signedIn("");
    await (await tables()).clear("outbox");
    Object.assign(server, { status: 0, up: true, got: [], batches: [] });
    server.largest = server.slowest = Number.POSITIVE_INFINITY;
    server.bad.clear();
  });

  it("keeps what it cannot send and sends it once, in order, when it can", async () => {
    outbox.signedIn("ines");
    server.up = false;
    const a = event("ines");
    const b = event("ines");
    await outbox.add(a);
    await outbox.add(b);
    await until((s) => s.waiting === 2 && !s.online);
    expect((await outbox.unsent("v")).map((e) => e.id)).toEqual([a.id, b.id]);
    server.up = true;
    outbox.kick();
    await until((s) => s.waiting === 0);
    expect(server.got).toEqual([a.id, b.id]);
  });

  it("says that an entry waits while the core is asked what it says", async () => {
    outbox.signedIn("ines");
    let answer: () => void = () => undefined;
    const made = outbox.making(async () => {
      await new Promise<void>((done) => (answer = done));
      void outbox.add(event("ines"));
    });
    outbox.kick(); // counted again meanwhile
    await until((s) => s.waiting === 1);
    server.up = false;
    answer();
    await made;
    await until((s) => s.waiting === 1 && !s.online);
    server.up = true;
    outbox.kick();
    await until((s) => s.waiting === 0);
    expect(server.got).toHaveLength(1);
  });

  it("says of an entry that could not be made that nothing waits", async () => {
    outbox.signedIn("ines");
    await expect(outbox.making(() => Promise.reject(new Error("no core")))).rejects.toThrow("no core");
    await until((s) => s.waiting === 0);
  });

  it("leaves a colleague's work until the colleague signs in", async () => {
    server.up = false;
    outbox.signedIn("tomas");
    const t = event("tomas");
    await outbox.add(t);
    await until((s) => !s.online);
    server.up = true;
    outbox.signedIn("ines");
    await until((s) => s.others === 1);
    expect(server.got).toEqual([]);
    outbox.signedIn("tomas");
    await until((s) => s.waiting === 0 && s.others === 0);
    expect(server.got).toEqual([t.id]);
  });

  it("says that the connection is back whatever other tabs say meanwhile", async () => {
    const other = new BroadcastChannel("mokren-outbox");
    outbox.signedIn("ines");
    server.up = false;
    await outbox.add(event("ines"));
    await vi.waitFor(async () => expect((await status()).online).toBe(false));
    // Counting what waits takes longer each time, so that words overtake.
    const d = await tables();
    const real = d.getAll.bind(d);
    let calls = 0;
    const slow = vi.spyOn(d, "getAll").mockImplementation(async (...of) => {
      const delay = 5 * ++calls;
      const rows = await real(...(of as Parameters<typeof real>));
      await new Promise((done) => setTimeout(done, delay));
      return rows as never;
    });
    const chatter = setInterval(() => other.postMessage({ kind: "changed" }), 2);
    server.up = true;
    outbox.kick();
    await vi.waitFor(async () => expect((await status()).waiting).toBe(0), 3000);
    clearInterval(chatter);
    other.close();
    await new Promise((done) => setTimeout(done, 5 * calls + 50));
    slow.mockRestore();
    expect(await status()).toMatchObject({ waiting: 0, online: true });
  });

  it("lets a refused event hold up no other, and never calls it an outage", async () => {
    outbox.signedIn("ines");
    server.up = false;
    const list = [event("ines"), event("ines"), event("ines")];
    server.bad.add(list[1]?.id ?? "");
    for (const e of list) await outbox.add(e);
    await until((s) => s.waiting === 3 && !s.online);
    server.up = true;
    outbox.kick();
    await until((s) => s.waiting === 0 && s.online);
    expect(server.got).toEqual([list[0]?.id, list[2]?.id]);
    const s = await status();
    expect(s.stuck).toHaveLength(1);
    expect(s.stuck[0]).toContain("$.seq");
    expect(await outbox.unsent("v")).toEqual([]);
    expect((await outbox.refused()).map((r) => r.event)).toEqual([list[1]]);
    await outbox.dismiss();
    expect((await status()).stuck).toEqual([]);
    expect(await outbox.refused()).toEqual([]);
  });

  it("takes a refusal of the whole for good, and goes on", async () => {
    outbox.signedIn("ines");
    server.status = 403;
    await outbox.add(event("ines"));
    await until((s) => s.stuck.length === 1 && s.online);
    server.status = 0;
    const ok = event("ines");
    await outbox.add(ok);
    await until((s) => s.waiting === 0);
    expect(server.got).toEqual([ok.id]);
  });

  it.each([["too large"], ["too slow"]])("halves a batch that is %s", async (how) => {
    outbox.signedIn("ines");
    server.up = false;
    const list = Array.from({ length: 30 }, () => event("ines", "x".repeat(9000)));
    for (const e of list) await outbox.add(e);
    await until((s) => s.waiting === 30 && !s.online);
    server.batches = [];
    if (how === "too large") server.largest = 40_000;
    else server.slowest = 40_000;
    server.up = true;
    outbox.kick();
    await until((s) => s.waiting === 0);
    expect(server.got).toEqual(list.map((e) => e.id));
    expect(Math.max(...server.batches)).toBeLessThan(300_000);
  });

  it("puts one event aside that is too large for any batch", async () => {
    outbox.signedIn("ines");
    server.largest = 5000;
    await outbox.add(event("ines", "x".repeat(9000)));
    const ok = event("ines");
    await outbox.add(ok);
    await until((s) => s.waiting === 0);
    expect(server.got).toEqual([ok.id]);
    expect((await status()).stuck).toHaveLength(1);
  });
});

describe("ids", () => {
  it("are version 7, unique and sort by time", () => {
    const at = Date.UTC(2026, 0, 1);
    const list = [uuidv7(at), uuidv7(at + 1), uuidv7(at + 1000)];
    for (const id of list)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect([...list].sort()).toEqual(list);
    expect(new Set(Array.from({ length: 1000 }, () => uuidv7(at))).size).toBe(1000);
  });
});
