// The form alone: no router, no store of answers, no figure. The program itself is fetched while
// somebody types.
import type { ReactNode } from "react";
import { createRoot, hydrateRoot } from "react-dom/client";
import type { Schemas } from "./api/client";
import { painted } from "./parts/painted";
import { SignInForm } from "./SignInForm";

/** So long the form has the line and the processor for itself, once it is painted. */
const aheadMS = 400;

function draw(root: HTMLElement, form: ReactNode) {
  if (root.hasChildNodes()) return hydrateRoot(root, form);
  const drawn = createRoot(root);
  drawn.render(form);
  return drawn;
}

/** Shows the form, or takes up the one that came with the page; what it gives takes it away. */
export function showSignIn(root: HTMLElement, onDone: (me: Schemas["Me"]) => Promise<void>) {
  const done = async (me: Schemas["Me"]) => {
    shown.unmount();
    await onDone(me);
  };
  const shown = draw(root, <SignInForm onDone={(me) => void done(me)} />);
  painted(() => setTimeout(() => void import("./AppRoot").catch(() => undefined), aheadMS));
  return () => shown.unmount();
}
