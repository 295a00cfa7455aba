// What the page in the address will need is fetched while the session is still
// asked for: the core, the screen's own script, a visit, and the views of the
// body that it begins with.
import type { QueryClient } from "@tanstack/react-query";
import { figureOf, pairs } from "./body/views";
import { loadCore } from "./core/loadCore";
import { fetchAhead } from "./core/openVisit";
import { Hold, Visit } from "./screens/screens";

export function headStart(path: string, queries: QueryClient) {
  const visit = /^\/visits\/([0-9a-f-]{36})(\/hold\/)?/.exec(path);
  if (visit?.[1]) {
    fetchAhead(visit[1]);
    (visit[2] ? Hold : Visit).ahead();
    for (const view of pairs.Body ?? []) void queries.prefetchQuery(figureOf(view));
  }
  // Who needs it asks again, and says so when it fails.
  if (visit || /^\/(atlas|guide|spine)\b/.test(path)) void loadCore().catch(() => undefined);
}
