// The program itself, with what all its screens share.
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { StyleSheetManager } from "styled-components";
import { App } from "./App";
import { newQueryClient } from "./api/asking";
import type { Schemas } from "./api/client";
import { updateServiceWorker } from "./serviceWorkerUpdate";
import { takeUp } from "./session";
import { Look } from "./theme";

/** Shows the program; for who has just signed in by the form, without asking who it is. */
export function showApp(root: HTMLElement, me?: Schemas["Me"]) {
  const queries = newQueryClient();
  if (me) takeUp(queries, me);
  // Styles stand in the page as text: media rules inserted one by one can miss the
  // turn of a tablet in Chromium.
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <StyleSheetManager disableCSSOMInjection>
          <BrowserRouter>
            <Look />
            <App />
          </BrowserRouter>
        </StyleSheetManager>
      </QueryClientProvider>
    </StrictMode>,
  );
  updateServiceWorker();
}
