import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { StyleSheetManager } from "styled-components";
import { App } from "./App";
import { newQueryClient } from "./api/asking";
import { prefetch } from "./prefetch";
import { updateServiceWorker } from "./serviceWorkerUpdate";
import { Look } from "./theme";

const queries = newQueryClient();

if (import.meta.env.MODE === "stepped") {
  const { stepClock } = await import("./testing/steppedClock");
  stepClock();
}
prefetch(location.pathname, queries);
updateServiceWorker();

// Styles stand in the page as text: media rules inserted one by one can miss the
// turn of a tablet in Chromium.
createRoot(document.getElementById("root") as HTMLElement).render(
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
