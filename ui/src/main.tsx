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
import { untilThere } from "./untilThere";

const root = document.getElementById("root") as HTMLElement;
const page = pageOf(location.pathname);
const ofClient = !!page && ofClients(page.route);
/** The server saw that nobody is signed in, and sent the form with the page. */
const formIsHere = root.hasChildNodes();

/** Where nothing can be shown yet, the page says what it waits for. */
let notice: HTMLElement | undefined;
function waits() {
  if (notice || root.hasChildNodes()) return;
  notice = document.createElement("p");
  notice.setAttribute("role", "status");
  notice.style.margin = "2em";
  notice.textContent = "Waiting for the network…";
  document.body.append(notice);
}
async function fetched<T>(script: () => Promise<T>): Promise<T> {
  const module = await untilThere(script, waits);
  notice?.remove();
  return module;
}
const app = () => fetched(() => import("./AppRoot"));
const form = () => fetched(() => import("./SignInRoot"));

async function begin() {
  // Here yesterday: most likely still signed in.
  const likely = !formIsHere && (ofClient || !!lastMe());
  const session = formIsHere || ofClient ? undefined : askAhead("/api/session");
  void (likely ? app() : form());
  if (likely && page) prefetch(page.route, page.params);
  if (import.meta.env.MODE === "stepped") {
    const { stepClock } = await import("./testing/steppedClock");
    stepClock();
  }
  // Nobody was here: the form does not wait to hear that nobody is signed in.
  const shown = formIsHere || (session && !likely) ? await showForm() : undefined;
  const answer = await session?.catch(() => undefined);
  if (formIsHere || shown?.done()) return;
  if (answer?.status === 401) {
    if (!shown) await showForm();
    return;
  }
  // Without an answer the program itself opens what was kept, or says what is wrong.
  shown?.putAway();
  if (!likely && page) prefetch(page.route, page.params);
  await (await app()).showApp(root);
}

/** Shows the form, until somebody has signed in by it. */
async function showForm() {
  let signedIn = false;
  const putAway = (await form()).showSignIn(root, async (me: Schemas["Me"]) => {
    signedIn = true;
    if (page) prefetch(page.route, page.params);
    await (await app()).showApp(root, me);
  });
  return { done: () => signedIn, putAway };
}

heedTurns();
void begin();
