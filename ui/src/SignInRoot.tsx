// The form alone: no router, no store of answers, no figure. The program itself is fetched while
// somebody types.
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { I18nProvider } from "react-aria-components";
import { StyleSheetManager } from "styled-components";
import type { Schemas } from "./api/client";
import SignIn from "./screens/signin/SignIn";
import { Look } from "./theme";

/** So long the form has the line and the processor for itself. */
const aheadMS = 400;

export function showSignIn(root: HTMLElement, onDone: (me: Schemas["Me"]) => Promise<void>) {
  const shown = createRoot(root);
  shown.render(
    <StrictMode>
      <StyleSheetManager disableCSSOMInjection>
        <I18nProvider locale="en-GB">
          <Look />
          <SignIn
            onDone={async (me) => {
              shown.unmount();
              await onDone(me);
            }}
          />
        </I18nProvider>
      </StyleSheetManager>
    </StrictMode>,
  );
  setTimeout(() => void import("./AppRoot").catch(() => undefined), aheadMS);
}
