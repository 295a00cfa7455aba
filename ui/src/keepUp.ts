// The service worker, and taking up a new version of the program: when a page has
// just been opened or is out of sight, and never in a hold. The core of a hold and
// the server's must know the same rules, so an old version is not kept for long.
import { registerSW } from "virtual:pwa-register";

/** A page that was opened so lately has nothing to lose. */
const freshMS = 15_000;
const againMS = 5000;

const inAHold = () => /\/hold\/|^\/hand\b/.test(location.pathname);
const safe = () => !inAHold() && (performance.now() < freshMS || document.hidden);

export function keepUp() {
  const take = registerSW({
    immediate: true,
    onNeedRefresh() {
      const when = () => (safe() ? void take(true) : void setTimeout(when, againMS));
      when();
    },
  });
}
