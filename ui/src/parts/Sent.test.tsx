// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SyncStatus } from "../core/syncStatus";
import { Sent } from "./Sent";

const box = vi.hoisted(() => ({
  status: {} as SyncStatus,
  dismissed: 0,
  say: undefined as unknown as (s: SyncStatus) => void,
}));
vi.mock("../core/outbox", () => ({
  outbox: {
    watch: (f: (s: SyncStatus) => void) => {
      box.say = f;
      f(box.status);
      return () => undefined;
    },
    refused: async () => [
      {
        id: "e",
        stuck: "hold ended: $.seq: allowed: more",
        event: { visit: "v", client: "c", type: "hold-ended", device_ms: 1_800_000_000_000, body: { at: 3 } },
      },
    ],
    dismiss: async () => box.dismissed++,
  },
}));

const statusOf = (more: Partial<SyncStatus>): SyncStatus => ({
  waiting: 0,
  others: 0,
  stuck: [],
  online: true,
  signedOut: false,
  ...more,
});
const said = () => screen.getByRole("status").textContent;

describe("what is in the record", () => {
  beforeEach(() => {
    box.dismissed = 0;
  });
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });

  it("is said in words: all of it, or what waits and why", () => {
    const words: [Partial<SyncStatus>, string][] = [
      [{}, "Saved"],
      [{ waiting: 3, online: false }, "Offline: 3 entries waiting"],
      [{ online: false, signedOut: true }, "Signed out: sign in again to send"],
      [{ others: 2 }, "2 of a colleague waiting for their sign-in"],
    ];
    for (const [more, text] of words) {
      box.status = statusOf(more);
      render(<Sent />);
      expect(said()).toBe(text);
      cleanup();
    }
  });

  it("is drawn once a frame, as it was said last", async () => {
    box.status = statusOf({});
    render(<Sent />);
    const drawn: (string | null)[] = [];
    const seen = new MutationObserver(() => drawn.push(said()));
    seen.observe(screen.getByRole("status"), { characterData: true, childList: true, subtree: true });
    for (const waiting of [1, 2, 3]) box.say(statusOf({ waiting }));
    expect(said()).toBe("Saved");
    await waitFor(() => expect(drawn).toEqual(["Saving 3 entries…"]));
    seen.disconnect();
  });

  it("counts as sent only with nothing waiting and a connection", () => {
    for (const [more, sent] of [
      [{}, "true"],
      [{ waiting: 1 }, "false"],
      [{ online: false }, "false"],
    ] as const) {
      box.status = statusOf(more);
      render(<Sent />);
      expect(screen.getByRole("status").dataset.sent).toBe(sent);
      cleanup();
    }
  });

  it("tells why something was refused, keeps it as a file, and lets it go only when told", async () => {
    box.status = statusOf({ stuck: ["hold ended: $.seq: allowed: more"] });
    let kept: Blob | undefined;
    let name = "";
    vi.spyOn(URL, "createObjectURL").mockImplementation((b) => {
      kept = b as Blob;
      return "blob:kept";
    });
    vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => {});
    vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
      name = this.download;
    });
    render(<Sent />);
    await userEvent.click(screen.getByRole("button", { name: "Why" }));
    expect(screen.getByRole("dialog").textContent).toContain("$.seq: allowed: more");
    await userEvent.click(screen.getByRole("button", { name: "Keep them as a file" }));
    await waitFor(() => expect(name).toBe("mokren-refused.json"));
    expect(JSON.parse((await kept?.text()) ?? "")).toEqual([
      {
        at: "2027-01-15T08:00:00.000Z",
        visit: "v",
        client: "c",
        type: "hold-ended",
        body: { at: 3 },
        why: "hold ended: $.seq: allowed: more",
      },
    ]);
    expect(box.dismissed).toBe(0);
    await userEvent.click(screen.getByRole("button", { name: "Discard" }));
    expect(box.dismissed).toBe(1);
  });
});
