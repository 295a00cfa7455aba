import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it, vi } from "vitest";

// A stand-in for the server: it can be cut off, refuse, or answer twice.
const server = { up: true, refuse: 0, got: [] as string[] };
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
      POST: async (_: string, o: { body: { events: { id: string }[] } }) => {
        if (!server.up) throw new Problem(0, "no connection");
        if (server.refuse) throw new Problem(server.refuse, "body.events[0].seq: allowed: more");
        server.got.push(...o.body.events.map((e) => e.id));
        return { events: o.body.events, receipts: [], version: 1 };
      },
    },
  };
});

const { outbox, nextSeq } = await import("./outbox");
const { uuidv7 } = await import("./ids");

const event = (author: string) => ({
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
  body: { text: "x" },
});
const standing = () =>
  new Promise<{ waiting: number; others: number; stuck: string[]; online: boolean }>((done) =>
    outbox.watch(done)(),
  );
const settle = () => new Promise((r) => setTimeout(r, 60));

describe("outbox", () => {
  beforeEach(() => {
    server.up = true;
    server.refuse = 0;
    server.got = [];
  });

  it("keeps what it cannot send and sends it once, in order, when it can", async () => {
    outbox.signedIn("ines");
    server.up = false;
    const a = event("ines");
    const b = event("ines");
    await outbox.add(a);
    await outbox.add(b);
    await settle();
    expect((await standing()).waiting).toBe(2);
    expect((await standing()).online).toBe(false);
    expect((await outbox.unsent("v")).map((e) => e.id)).toEqual([a.id, b.id]);
    server.up = true;
    outbox.kick();
    await settle();
    expect(server.got).toEqual([a.id, b.id]);
    expect((await standing()).waiting).toBe(0);
  });

  it("leaves a colleague's work until the colleague signs in", async () => {
    server.up = false;
    outbox.signedIn("tomas");
    const t = event("tomas");
    await outbox.add(t);
    await settle();
    server.up = true;
    outbox.signedIn("ines");
    await settle();
    expect(server.got).toEqual([]);
    expect((await standing()).others).toBe(1);
    outbox.signedIn("tomas");
    await settle();
    expect(server.got).toEqual([t.id]);
  });

  it("keeps and shows what the server refuses, and sends the rest later", async () => {
    outbox.signedIn("ines");
    server.refuse = 422;
    await outbox.add(event("ines"));
    await settle();
    expect((await standing()).stuck[0]).toContain("seq");
    server.refuse = 0;
    const ok = event("ines");
    await outbox.add(ok);
    await settle();
    expect(server.got).toEqual([ok.id]);
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
