// The program itself, with what all its screens share.
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./App";
import { newQueryClient } from "./api/asking";
import type { Schemas } from "./api/client";
import { tables } from "./core/db";
import { updateServiceWorker } from "./serviceWorkerUpdate";
import { ofClients, pageOf } from "./routes";
import { fetchScreen } from "./screens/screens";
import { takeUp, whoIsHere } from "./session";
import { Look } from "./theme";

/** So long the first paint waits for the server, in an outage. */
const firstPaintMS = 1_500;

/** Shows the program; for who has just signed in by the form, without asking who it is. The screen's
 * script, who it is and what the screen consists of are waited for: one drawing in place of two, and React
 * shows what comes after a first "Opening…" a third of a second late. */
export async function showApp(root: HTMLElement, me?: Schemas["Me"]) {
  void tables().catch(() => undefined); // opened while the screen is fetched; who needs it says what is wrong
  const queries = newQueryClient();
  if (me) takeUp(queries, me);
  const { route, params } = pageOf(location.pathname) ?? {};
  const screen = fetchScreen(route?.screen ?? "Day");
  const known = async () => {
    const is = route && ofClients(route) ? undefined : await whoIsHere(queries);
    if (is) await (await screen)?.before?.(queries, is, params ?? {});
  };
  await Promise.all([screen, Promise.race([known(), new Promise((late) => setTimeout(late, firstPaintMS))])]);
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Look />
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
  updateServiceWorker();
}
