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
import { ofClients, routeOf } from "./routes";
import { fetchScreen } from "./screens/screens";
import { takeUp, whoIsHere } from "./session";
import { Look } from "./theme";

/** Shows the program; for who has just signed in by the form, without asking who it is. Both who it
 * is and the screen's script are waited for: React shows what comes after a first "Opening…" a third
 * of a second late. */
export async function showApp(root: HTMLElement, me?: Schemas["Me"]) {
  void tables().catch(() => undefined); // opened while the screen is fetched; who needs it says what is wrong
  const queries = newQueryClient();
  if (me) takeUp(queries, me);
  const page = routeOf(location.pathname);
  await Promise.all([
    fetchScreen(page?.screen ?? "Day"),
    page && ofClients(page) ? undefined : whoIsHere(queries),
  ]);
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
