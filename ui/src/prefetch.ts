// What the page in the address will need is fetched while the session is still
// asked for: the core, the screen's own script, a visit, and the views of the
// body that it begins with.
import type { QueryClient } from "@tanstack/react-query";
import { beside, figureOf } from "./body/views";
import { loadCore } from "./core/loadCore";
import { fetchAhead } from "./core/openVisit";
import { matchPath } from "react-router";
import { routeOf } from "./routes";
import * as screens from "./screens/screens";

export function prefetch(path: string, queries: QueryClient) {
  const route = routeOf(path);
  if (!route) return;
  const ahead = new Set(route.ahead);
  const screen = (screens as Record<string, { ahead?: () => void }>)[route.screen];
  screen?.ahead?.();
  const { id } = (matchPath(route.path, path)?.params ?? {}) as { id?: string };
  if (ahead.has("visit") && id) fetchAhead(id);
  if (ahead.has("body")) for (const view of beside("front")) void queries.prefetchQuery(figureOf(view));
  // Who needs it asks again, and says so when it fails.
  if (ahead.has("core")) void loadCore().catch(() => undefined);
}
