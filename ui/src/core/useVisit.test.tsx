// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { newQueryClient } from "../api/asking";
import { realCore } from "../testing/core";
import { me, openVisit, visitID } from "../testing/visit";

// A stand-in for the server: what it has of the visit, and how it answers.
const server = vi.hoisted(() => ({
  status: 200,
  events: [] as unknown[],
  state: undefined as unknown,
  asked: 0,
}));
// The core begins when a test says so.
const core = vi.hoisted(() => ({ begun: Promise.resolve() }));
vi.mock("./loadCore", async (original) => ({
  ...(await original<object>()),
  loadCore: async () => {
    const real = await realCore();
    const ask: typeof real.ask = async (name, input) => {
      await core.begun;
      return real.ask(name, input);
    };
    return Object.assign(Object.create(real), { ask });
  },
}));
vi.mock("../api/client", async (original) => ({
  ...(await original<object>()),
  api: {
    GET: async () => {
      server.asked += 1;
      if (server.status === 0) throw new Error("no connection");
      const response = new Response(null, { status: server.status });
      return response.ok
        ? { response, data: { ...openVisit(), events: server.events, state: server.state } }
        : { response, error: { detail: server.status === 403 ? "Not yours." : "Not reachable." } };
    },
  },
}));
const { useVisit } = await import("./useVisit");
const { openAhead } = await import("./openVisit");
const { useUndo } = await import("./useUndo");
const { outbox } = await import("./outbox");
const { tables } = await import("./db");
const { forgetCopies } = await import("./copies");

const client = newQueryClient();
const around = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
const opened = (when?: "early") => renderHook(() => useVisit(visitID, me, when), { wrapper: around }).result;

async function ready() {
  const at = opened();
  await waitFor(() => expect(at.current.visit).toBeDefined(), { timeout: 5000 });
  return () => {
    if (!at.current.visit) throw new Error("The visit is not open.");
    return at.current.visit;
  };
}

const noted = (text: string, version: number): Schemas["Event"] =>
  ({
    id: `0190a000-0000-7000-8000-0000000001${version}0`,
    visit: visitID,
    client: openVisit().client.id,
    author: me.id,
    device: "another",
    seq: version,
    device_ms: Date.now(),
    seen: 0,
    version,
    verdict: "accepted",
    schema: 1,
    type: "note-written",
    body: { text },
  }) as unknown as Schemas["Event"];

describe("a visit on screen", () => {
  beforeEach(async () => {
    Object.assign(server, { status: 200, events: [], state: undefined, asked: 0 });
    core.begun = Promise.resolve();
    await (await tables()).clear("outbox");
    await forgetCopies();
  });
  afterEach(() => {
    cleanup();
    client.clear();
  });

  it("shows what is written at once, keeps it until it is sent, and takes it back", async () => {
    const visit = await ready();
    await act(async () => void visit().write("note-written", { text: "Calm." }));
    expect(visit().state.note).toBe("Calm.");
    await waitFor(async () => expect(await outbox.unsent(visitID)).toHaveLength(1));
    const undo = renderHook(() => useUndo(visit()), { wrapper: around });
    const undoing = async () => {
      undo.rerender();
      await waitFor(() => expect(undo.result.current.undo).toBeDefined());
      return undo.result.current;
    };
    await act(async () => (await undoing()).undo?.());
    expect(visit().state.note ?? "").toBe("");
    await act(async () => undo.result.current.redo?.());
    expect(visit().state.note).toBe("Calm.");
  });

  it("begins with what was fetched before it was drawn, which the next screen asks for anew", async () => {
    await openAhead(client, visitID, me);
    await ready();
    expect(server.asked).toBe(1);
    cleanup();
    server.events = [noted("Since then.", 1)];
    expect((await ready())().state.note).toBe("Since then.");
  });

  it("opens with what waits here laid over what the server has", async () => {
    server.events = [noted("Theirs.", 1)];
    const first = await ready();
    expect(first().state.note).toBe("Theirs.");
    await act(async () => void first().write("note-written", { text: "Mine." }));
    await waitFor(async () => expect(await outbox.unsent(visitID)).toHaveLength(1));
    cleanup();
    const second = await ready();
    expect(second().state.note).toBe("Mine.");
    expect(server.asked).toBe(2);
  });

  it("asks anew on each screen: what another fetched is older than what it wrote", async () => {
    const first = await ready();
    expect(first().state.note ?? "").toBe("");
    server.events = [noted("Sent meanwhile.", 1)];
    const second = await ready();
    expect(second().state.note).toBe("Sent meanwhile.");
  });

  it.each([0, 502, 503, 504])("opens the sealed copy in an outage (status %i)", async (status) => {
    server.events = [noted("Kept.", 1)];
    await ready();
    cleanup();
    server.status = status;
    const offline = await ready();
    expect(offline().state.note).toBe("Kept.");
  });

  it("asks again by itself when the record was away and no copy is here", async () => {
    server.status = 503;
    const at = opened();
    await waitFor(() => expect(at.current.error?.message).toContain("Not reachable."), { timeout: 5000 });
    server.status = 200;
    await waitFor(() => expect(at.current.visit).toBeDefined(), { timeout: 8000 });
  }, 15_000);

  it("takes a no for a no, copy or not", async () => {
    await ready();
    cleanup();
    server.status = 403;
    const at = opened();
    await waitFor(() => expect(at.current.error?.message).toContain("Not yours."), { timeout: 5000 });
    expect(at.current.visit).toBeUndefined();
  });

  it("says beforehand what the core would set aside", async () => {
    const visit = await ready();
    const request = { protocol: "graded-stages", muscle: "soleus", side: "left" } as const;
    const { start } = await visit().core.ask("hold-start", { request, limits: {}, where: [] });
    const why = await visit().preview("hold-started", { hold: "h", point: "p", start } as never);
    expect(why).not.toBe("");
    expect(await visit().preview("note-written", { text: "Fine." })).toBe("");
    expect(visit().state.holds).toEqual([]);
  });

  describe("before the core has begun", () => {
    const held = () => {
      let settle: (failed?: Error) => void = () => undefined;
      core.begun = new Promise((done, fail) => {
        settle = (failed) => (failed ? fail(failed) : done());
      });
      server.state = { note: "As the server has it." };
      return {
        begin: () => act(async () => settle()),
        fail: () => act(async () => settle(new Error("No core."))),
      };
    };

    it("is what the server has made of the log, and what is asked is answered afterwards", async () => {
      server.events = [noted("As the core has it.", 1)];
      const { begin } = held();
      const at = opened("early");
      await waitFor(() => expect(at.current.visit?.state.note).toBe("As the server has it."));
      expect(at.current.visit?.of).toBeUndefined();
      const answer = at.current.visit?.preview("note-written", { text: "Fine." });
      await begin();
      expect(await answer).toBe("");
      await waitFor(() => expect(at.current.visit?.state.note).toBe("As the core has it."));
      expect(at.current.visit?.of).toBeDefined();
    });

    it("keeps what is written meanwhile", async () => {
      const { begin } = held();
      const at = opened("early");
      await waitFor(() => expect(at.current.visit).toBeDefined());
      await act(async () => void at.current.visit?.write("note-written", { text: "Early." }));
      await begin();
      await waitFor(() => expect(at.current.visit?.state.note).toBe("Early."));
      expect(await outbox.unsent(visitID)).toHaveLength(1);
    });

    it("waits for the core where more is written here than the server has, or a screen needs it", async () => {
      const first = await ready();
      await act(async () => void first().write("note-written", { text: "Mine." }));
      await waitFor(async () => expect(await outbox.unsent(visitID)).toHaveLength(1));
      cleanup();
      const { begin } = held();
      const at = opened("early");
      const plain = opened();
      await waitFor(() => expect(server.asked).toBe(3));
      await act(async () => new Promise((done) => setTimeout(done)));
      expect(at.current.visit).toBeUndefined();
      expect(plain.current.visit).toBeUndefined();
      await begin();
      await waitFor(() => expect(at.current.visit?.state.note).toBe("Mine."));
      await waitFor(() => expect(plain.current.visit?.state.note).toBe("Mine."));
    });

    it("says so when the core does not begin", async () => {
      const { fail } = held();
      const at = opened("early");
      await waitFor(() => expect(at.current.visit).toBeDefined());
      await fail();
      await waitFor(() => expect(at.current.error?.message).toBe("No core."));
      expect(at.current.visit).toBeUndefined();
    });
  });

  it("answers about the log as it is by then, when it grows while one asks", async () => {
    const visit = await ready();
    const asked = Array.from({ length: 4 }, (_, i) => {
      const answer = visit().preview("note-written", { text: `Asked ${i}.` });
      act(() => void visit().write("note-written", { text: `Written ${i}.` }));
      return answer;
    });
    expect(await Promise.all(asked)).toEqual(["", "", "", ""]);
  });
});
