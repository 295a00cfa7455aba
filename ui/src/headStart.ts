// What the page in the address will need is fetched while the session is still
// asked for: the core, the screen's own script, and a visit.
import { loadCore } from "./core/core";
import { fetchAhead } from "./core/openVisit";
import { Hold, Visit } from "./screens/screens";

export function headStart(path: string) {
  const visit = /^\/visits\/([0-9a-f-]{36})(\/hold\/)?/.exec(path);
  if (visit?.[1]) {
    fetchAhead(visit[1]);
    (visit[2] ? Hold : Visit).ahead();
  }
  // Who needs it asks again, and says so when it fails.
  if (visit || /^\/(atlas|guide|spine)\b/.test(path)) void loadCore().catch(() => undefined);
}
