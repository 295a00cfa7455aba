import { matchPath } from "react-router";
import { describe, expect, it } from "vitest";
import type { Schemas } from "./api/client";
import { may } from "./rights";
import { pageOf, routeOf, routes, routesOf } from "./routes";
import { load } from "./screens/load";

const desk = { rights: ["day", "diary", "list-clients", "me"] } as unknown as Schemas["Me"];

describe("the table of routes", () => {
  it("knows what the router knows", () => {
    const addresses = routes.flatMap((r) => [
      r.path.replaceAll("?", "").replace(/:(\w+)/g, "some-$1"),
      r.path.replace(/\/:\w+\?/g, "").replace(/:(\w+)/g, "some-$1"),
    ]);
    for (const address of [...addresses, "/nowhere/at/all", "/visits"]) {
      const known = routes.find((r) => matchPath(r.path, address));
      expect(routeOf(address)?.path, address).toBe(known?.path);
      const { "*": _, ...params } = (known && matchPath(known.path, address)?.params) ?? {};
      expect(pageOf(address)?.params ?? {}, address).toEqual(params);
    }
  });
  it("knows the page of an address", () => {
    expect(routeOf("/visits/abc/hold/def")?.screen).toBe("Hold");
    expect(routeOf("/visits/abc")?.screen).toBe("Visit");
    expect(routeOf("/hand/1234")?.update).toBe("never");
    expect(routeOf("/hand")?.update).toBe("never");
    expect(routeOf("/")?.screen).toBe("Day");
    expect(routeOf("/clients/")?.screen).toBe("Clients");
    expect(routeOf("/nowhere")).toBeUndefined();
    expect(routeOf("/visits/abc/elsewhere")?.screen).toBe("Visit");
    expect(pageOf("/visits/abc/hold/def")?.params).toEqual({ id: "abc", hold: "def" });
  });
  it("shows what somebody has the right to see, and no client's page", () => {
    const titles = routesOf(desk).flatMap((r) => r.title ?? []);
    expect(titles).toEqual(["Day", "Week", "Clients", "Help"]);
    expect(routesOf(desk).some((r) => r.frame === "client")).toBe(false);
  });
  it("names screens that there are", () => {
    const known = new Set(Object.keys(load));
    expect(routes.map((r) => r.screen).filter((s) => !known.has(s))).toEqual([]);
  });
});

describe("rights", () => {
  it("are those of the session; one of an older program has none", () => {
    expect(may(desk, "diary")).toBe(true);
    expect(may(desk, "open-visit")).toBe(false);
    expect(may({} as never, "diary")).toBe(false);
  });
});
