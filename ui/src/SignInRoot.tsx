// The form alone: no router, no store of answers, no figure. The program itself is fetched while
// somebody types.
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import type { Schemas } from "./api/client";
import SignIn from "./screens/signin/SignIn";
import { painted } from "./parts/painted";
import { Look } from "./theme";

/** So long the form has the line and the processor for itself, once it is painted. */
const aheadMS = 400;

/** Shows the form; what it gives takes it away. */
export function showSignIn(root: HTMLElement, onDone: (me: Schemas["Me"]) => Promise<void>) {
  const shown = createRoot(root);
  shown.render(
    <StrictMode>
      <Look />
      <SignIn
        onDone={async (me) => {
          shown.unmount();
          await onDone(me);
        }}
      />
    </StrictMode>,
  );
  painted(() => setTimeout(() => void import("./AppRoot").catch(() => undefined), aheadMS));
  return () => shown.unmount();
}
