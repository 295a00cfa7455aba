// The service worker, and taking up a new version of the program: when a page has
// just been opened or is out of sight, and never in a hold. The core of a hold and
// the server's must know the same rules, so an old version is not kept for long.
import { registerSW } from "virtual:pwa-register";
import { routeOf } from "./routes";

/** A page that was opened so lately has nothing to lose. */
const freshMS = 15_000;
const againMS = 5000;

const stays = () => routeOf(location.pathname)?.update === "never";
const safe = () => !stays() && (performance.now() < freshMS || document.hidden);

/** The first opening has the line and the processor for itself: only then everything is fetched
 * that opens the program without the network. */
const settledMS = 3_000;

export function updateServiceWorker() {
  setTimeout(register, settledMS);
}

function register() {
  const take = registerSW({
    immediate: true,
    onNeedRefresh() {
      const when = () => (safe() ? void take(true) : void setTimeout(when, againMS));
      when();
    },
  });
}
