// Where the program begins: what this page will need is asked for at once, and then either the form
// or the program itself is fetched. No library is needed to decide that.
import "@fontsource-variable/figtree";
import "@fontsource-variable/source-serif-4";
import type { Schemas } from "./api/client";
import { askAhead } from "./api/ahead";
import { lastMe } from "./core/lastMe";
import { prefetch } from "./prefetch";
import { ofClients, pageOf } from "./routes";
import { heedTurns } from "./turns";

const root = document.getElementById("root") as HTMLElement;
const page = pageOf(location.pathname);
const ofClient = !!page && ofClients(page.route);

const app = () => import("./AppRoot");
const form = () => import("./SignInRoot");

async function begin() {
  // Here yesterday: most likely still signed in.
  const likely = ofClient || !!lastMe();
  const session = ofClient ? undefined : askAhead("/api/session");
  const first = likely ? app() : form();
  first.catch(() => undefined);
  if (likely && page) prefetch(page.route, page.params);
  if (import.meta.env.MODE === "stepped") {
    const { stepClock } = await import("./testing/steppedClock");
    stepClock();
  }
  // Without an answer the program itself opens what was kept, or says what is wrong.
  const answer = await session?.catch(() => undefined);
  if (answer?.status !== 401) {
    if (!likely && page) prefetch(page.route, page.params);
    return (await app()).showApp(root);
  }
  (await form()).showSignIn(root, async (me: Schemas["Me"]) => {
    if (page) prefetch(page.route, page.params);
    (await app()).showApp(root, me);
  });
}

heedTurns();
void begin();
