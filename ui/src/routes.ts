// Every page: its address, what it is called in the main menu, who may see it, what is
// fetched ahead of it, and whether a new version of the program may be taken up there.
// The router, the menu, the fetching ahead and the test of widths are made from this table.
import type { Schemas } from "./api/client";
import table from "./routes.json";
import { may } from "./rights";

export interface PageRoute {
  path: string;
  /** The component, by its name in screens.ts. */
  screen: string;
  /** In the main menu, where it stands there. */
  title?: string;
  /** Absent on a client's own device, where a code gives the right. */
  right?: Schemas["Right"];
  /** Table pages fill the whole display; a client's pages need no sign-in. */
  frame?: "none" | "client";
  ahead?: ("core" | "visit" | "body" | "day")[];
  /** Never: in a hold the program does not change. */
  update?: "never";
}

export const routes = table as PageRoute[];

/** The addresses of a path, its parameters by their names; one with a question mark may be left out.
 * Known before the router is here. */
const addressesOf = new Map(
  routes.map((r) => [
    r,
    new RegExp(
      `^${r.path
        .replace(/\/\*$/, "(?:/.*)?")
        .replace(/\/:(\w+)(\?)?/g, (_, name, may) => `(?:/(?<${name}>[^/]+))${may ?? ""}`)}/?$`,
    ),
  ]),
);

/** The page of an address, the first that matches, and the parameters in it. */
export function pageOf(path: string) {
  for (const [route, addresses] of addressesOf) {
    const found = addresses.exec(path);
    if (found) return { route, params: { ...found.groups } };
  }
  return undefined;
}

export const routeOf = (path: string) => pageOf(path)?.route;

export const ofClients = (r: PageRoute) => r.frame === "client";

/** The pages that somebody may see. */
export const routesOf = (me: Schemas["Me"]) =>
  routes.filter((r) => !ofClients(r) && r.right && may(me, r.right));
