// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from "vitest";
import { askAhead, fetchOnce } from "./ahead";

const request = () => new Request(new URL("/api/session", location.origin));

function answers(...all: (Response | Error)[]) {
  const fetched = vi.fn(async () => {
    const next = all.shift();
    if (!(next instanceof Response)) throw next ?? new Error("asked too often");
    return next;
  });
  vi.stubGlobal("fetch", fetched);
  return fetched;
}

describe("an answer that was asked for ahead", () => {
  afterEach(() => {
    vi.unstubAllGlobals();
  });

  it("is taken once", async () => {
    const fetched = answers(Response.json("ahead"), Response.json("later"));
    void askAhead("/api/session");
    expect(await (await fetchOnce(request())).json()).toBe("ahead");
    expect(await (await fetchOnce(request())).json()).toBe("later");
    expect(fetched).toHaveBeenCalledTimes(2);
  });

  it.each([
    ["was refused", new Response(null, { status: 401 })],
    ["did not come", new Error("no network")],
  ])("is asked for again when it %s", async (_, first) => {
    answers(first, Response.json("again"));
    void askAhead("/api/session");
    expect(await (await fetchOnce(request())).json()).toBe("again");
  });

  it("is not the answer to another question", async () => {
    answers(Response.json("ahead"), Response.json("written"));
    void askAhead("/api/session");
    const post = new Request(request().url, { method: "POST" });
    expect(await (await fetchOnce(post)).json()).toBe("written");
  });
});
