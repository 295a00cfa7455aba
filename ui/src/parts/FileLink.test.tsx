// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FileLink } from "./FileLink";

const saved: { name: string; type: string }[] = [];

beforeEach(() => {
  saved.length = 0;
  let last: Blob | undefined;
  vi.spyOn(URL, "createObjectURL").mockImplementation((b) => {
    last = b as Blob;
    return "blob:kept";
  });
  vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => {});
  vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
    saved.push({ name: this.download, type: last?.type ?? "" });
  });
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const shown = () => {
  render(<FileLink href="/api/practice/print/blank">Blank sheet</FileLink>);
  return screen.getByText("Blank sheet");
};

describe("a link to a file that the server makes", () => {
  it("says that it is being made, and keeps it under its name", async () => {
    let answer: (r: Response) => void = () => {};
    vi.stubGlobal("fetch", () => new Promise<Response>((done) => (answer = done)));
    await userEvent.click(shown());
    expect(screen.getByRole("status").textContent).toContain("being made");
    const headers = {
      "Content-Type": "application/pdf",
      "Content-Disposition": 'attachment; filename="blank.pdf"',
    };
    answer(new Response("%PDF-1.7", { headers }));
    await waitFor(() => expect(saved).toEqual([{ name: "blank.pdf", type: "application/pdf" }]));
    await waitFor(() => expect(screen.queryByRole("status")).toBeNull());
  });
  it("asks once, however often it is touched", async () => {
    const fetches = vi.fn(() => new Promise<Response>(() => {}));
    vi.stubGlobal("fetch", fetches);
    const link = shown();
    await userEvent.click(link);
    await userEvent.click(link);
    expect(fetches).toHaveBeenCalledTimes(1);
  });
  it("says why there is none, and can be asked again", async () => {
    const refuse = () =>
      new Response(JSON.stringify({ detail: "The server's disk is full." }), { status: 503 });
    vi.stubGlobal("fetch", async () => refuse());
    const link = shown();
    await userEvent.click(link);
    expect((await screen.findByRole("alert")).textContent).toContain("disk is full");
    expect(saved).toEqual([]);
    vi.stubGlobal("fetch", async () => new Response("ok"));
    await userEvent.click(link);
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(screen.queryByRole("alert")).toBeNull();
  });
  it("does not break when there is no connection", async () => {
    vi.stubGlobal("fetch", async () => {
      throw new TypeError("network");
    });
    await userEvent.click(shown());
    expect((await screen.findByRole("alert")).textContent).toContain("No connection");
  });
});
