// What the page in the address will need is asked for at once, before any library is here: the core,
// the screen's own script, a visit, and the views of the body that it begins with.
import { askAhead } from "./api/ahead";
import { figurePath, firstViews } from "./body/figurePath";
import { loadCore } from "./core/loadCore";
import { isLocal } from "./core/localIDs";
import type { PageRoute } from "./routes";
import { load } from "./screens/load";

export function prefetch(route: PageRoute, params: Record<string, string>) {
  const ahead = new Set(route.ahead);
  // Who needs it asks again, and says so when it fails.
  if (ahead.has("core")) void loadCore().catch(() => undefined);
  if (ahead.has("visit") && params.id && !isLocal(params.id)) void askAhead(`/api/visits/${params.id}`);
  if (ahead.has("day")) void askAhead("/api/day");
  if (ahead.has("body")) for (const view of firstViews) void askAhead(figurePath(view));
  void load[route.screen as keyof typeof load]?.().catch(() => undefined);
}
