// @vitest-environment happy-dom
import { QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { newQueryClient } from "../../api/asking";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import type { LiveVisit } from "../../core/useVisit";
import { realCore } from "../../testing/core";
import { me, openVisit, visitID } from "../../testing/visit";

const shown = vi.hoisted(() => ({ visit: undefined as LiveVisit | undefined }));
vi.mock("../../core/useVisit", () => ({
  useVisit: () => ({ visit: shown.visit, retry: () => undefined }),
}));
vi.mock("../../core/usePressurePad", async (original) => ({
  ...(await original<object>()),
  usePressurePadAddress: () => undefined,
}));
vi.mock("../../core/useInclinometer", async (original) => ({
  ...(await original<object>()),
  useInclinometerAddress: () => undefined,
}));
vi.mock("../../core/useVisitWire", () => ({ useVisitWire: () => "never" }));
vi.mock("../../core/outbox", () => ({
  device: "this-page",
  outbox: { making: (work: () => Promise<void>) => work() },
}));
vi.mock("../../parts/Sent", () => ({ Sent: () => null }));
const { default: Hold } = await import("./Hold");

type WrittenEvent = [type: string, body: Record<string, unknown>];
let core: Core;
let written: WrittenEvent[];

/** A hold on the left soleus, as it stands right after it began. */
async function begin(protocol: Schemas["ProtocolID"] = "graded-stages") {
  const request = { protocol, muscle: "soleus", side: "left" } as const;
  const { start } = await core.ask("hold-start", { request, limits: {}, where: [] });
  const at = Date.now();
  const summary = { outcome: "unchanged" };
  const hold = { id: "h", start, summary, log: [], status: "live", started_ms: at, device_ms: at };
  shown.visit = {
    open: openVisit(),
    core,
    state: { holds: [hold], points: [] },
    write: (type: string, body: object) => {
      written.push([type, body as Record<string, unknown>]);
      return "event";
    },
  } as unknown as LiveVisit;
  render(
    <QueryClientProvider client={newQueryClient()}>
      <MemoryRouter initialEntries={[`/visits/${visitID}/hold/h`]}>
        <Routes>
          <Route path="/visits/:id/hold/:hold" element={<Hold me={me} />} />
          <Route path="/visits/:id" element={<p>The visit</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await pass(0);
}

/** Does something, and lets the core answer. */
const done = (what: () => unknown) => act(async () => void what());
const key = (k: string) => done(() => fireEvent.keyDown(document.body, { key: k }));
const touch = (e: HTMLElement | undefined) => done(() => fireEvent.click(e as HTMLElement));
const pass = (seconds: number) => act(() => vi.advanceTimersByTimeAsync(seconds * 1000));
const said = () => written.map(([, b]) => b.event).filter(Boolean);
const phase = () => screen.getByRole("main").dataset.phase;

describe("a hold", () => {
  beforeAll(async () => {
    core = await realCore();
  });
  beforeEach(() => {
    written = [];
    vi.useFakeTimers();
  });
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
    localStorage.clear();
    vi.useRealTimers();
  });

  it("begins by the pedal and asks for the number, in the coach's words", async () => {
    await begin();
    expect(phase()).toBe("ready");
    await key(" ");
    expect(phase()).toBe("settle");
    expect(said()).toEqual(["contact"]);
    await pass(4);
    const start = shown.visit?.state.holds[0]?.start as Schemas["Start"];
    const log = written.map(([, b]) => b) as unknown as Schemas["HoldHappened"][];
    const { line } = await core.ask("hold-open", { hold: "replay", start, log, at_ms: 4000 });
    expect(screen.getByRole("status").textContent).toBe(line.text);
  });

  it("takes a number by key or touch, at once and with its time", async () => {
    await begin();
    await key(" ");
    await pass(3);
    await key("6");
    await pass(2);
    await touch(screen.getByRole("button", { name: "Number 9" }));
    expect(written.slice(1)).toEqual([
      ["hold-event", { hold: "h", at_ms: 3000, event: "score", value: 6 }],
      ["hold-event", { hold: "h", at_ms: 5000, event: "score", value: 9 }],
    ]);
    expect(screen.getByRole("main").dataset.advice).toContain("ease-off");
  });

  it("takes the last answer back", async () => {
    await begin();
    await key(" ");
    await pass(3);
    await key("9");
    expect(screen.getByRole("main").dataset.advice).toContain("ease-off");
    await pass(1);
    await key("Backspace");
    expect(said()).toEqual(["contact", "score", "undo"]);
    expect(screen.getByRole("main").dataset.advice).not.toContain("ease-off");
  });

  /** Comes back to a hold whose page was out of sight since a moment. */
  const awayFor = async (seconds: number) => {
    const see = (state: string) => {
      vi.spyOn(document, "visibilityState", "get").mockReturnValue(state as DocumentVisibilityState);
      return done(() => fireEvent(document, new Event("visibilitychange")));
    };
    await see("hidden");
    await pass(seconds);
    await see("visible");
    await pass(0);
  };

  it("asks where it ended when nobody attended it, and ends it there", async () => {
    await begin();
    await key(" ");
    await pass(3);
    await key("6");
    await pass(20);
    await awayFor(240);
    expect(screen.getByRole("alert").textContent).toBe("Nobody attended this hold after 0:23.");
    await key(" ");
    expect(said()).toEqual(["contact", "score"]);
    await touch(screen.getAllByRole("button", { name: "End at 0:23" })[0]);
    const [, claim] = written.find(([t]) => t === "hold-ended") ?? [];
    expect(claim).toMatchObject({ outcome: "unchanged", pressure_ms: 23_000, last_sign_ms: 23_000 });
    expect(said()).toEqual(["contact", "score", "end"]);
  });

  it("goes on from there with a new contact", async () => {
    await begin();
    await key(" ");
    await pass(23);
    await awayFor(100);
    await touch(screen.getByRole("button", { name: /^Go on/ }));
    expect(phase()).toBe("paused");
    await pass(5);
    await key(" ");
    await pass(2);
    expect(written.map(([, b]) => [b.event, b.at_ms])).toEqual([
      ["contact", 0],
      ["pause", 23_000],
      ["resume", 128_000],
    ]);
  });

  it("does not ask after half a minute out of sight", async () => {
    await begin();
    await key(" ");
    await pass(10);
    await awayFor(30);
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("is stopped by one key, ends once, and hears nothing after", async () => {
    await begin();
    await key(" ");
    await pass(5);
    await key("Escape");
    await pass(5);
    await key("7");
    const ended = written.filter(([t]) => t === "hold-ended");
    expect(ended).toEqual([["hold-ended", expect.objectContaining({ hold: "h", outcome: "stopped" })]]);
    expect(said()).toEqual(["contact", "client-stop"]);
    expect(screen.getByRole("button", { name: /^Stop/ }).hasAttribute("disabled")).toBe(true);
  });

  it("lets go and ends when one leaves while pressing", async () => {
    await begin();
    await key(" ");
    await pass(5);
    await touch(screen.getByRole("button", { name: "Back to the visit" }));
    expect(said()).toEqual(["contact", "release"]);
    expect(written.at(-1)?.[0]).toBe("hold-ended");
    expect(screen.getByText("The visit")).toBeTruthy();
  });

  it("says press and ease by the coach's own clock, without a touch", async () => {
    await begin("pulses");
    await key(" ");
    expect(phase()).toBe("press");
    const pace = () => document.querySelector("[data-pace]")?.getAttribute("data-pace");
    expect(pace()).toBe("press");
    await pass(5.2);
    expect(phase()).toBe("rest");
    expect(pace()).toBe("rest");
    await key("3");
    await pass(5);
    expect(phase()).toBe("press");
    expect(screen.getByRole("main").dataset.advice).toContain("sink-slightly");
    expect(said()).toEqual(["contact", "score"]);
  });

  it("takes degrees in a field, and no digit of them for a number", async () => {
    await begin("contract-relax");
    await key(" ");
    await pass(1);
    const field = screen.getByLabelText(/Range now/);
    await done(() => fireEvent.keyDown(field, { key: "6" }));
    expect(said()).toEqual(["contact"]);
    await done(() => fireEvent.change(field, { target: { value: "60" } }));
    await done(() => fireEvent.blur(field));
    expect(written.at(-1)?.[1]).toMatchObject({ event: "range", value: 60 });
  });

  it("refuses numbers while nothing is pressed", async () => {
    await begin();
    expect(screen.getByRole("button", { name: "Number 5" }).hasAttribute("disabled")).toBe(true);
  });
});
