// The form as a whole: what the build writes into the page, and what the script then finds there.
import { StrictMode } from "react";
import type { Schemas } from "./api/client";
import SignIn from "./screens/signin/SignIn";
import { Look } from "./theme";

export const SignInForm = ({ onDone }: { onDone: (me: Schemas["Me"]) => void }) => (
  <StrictMode>
    <Look />
    <SignIn onDone={onDone} />
  </StrictMode>
);
