// Who one is. The page comes with this form in it (prerender/), so a field keeps what is typed before the
// script is here, and the form is read when it is sent.
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { wellFormed } from "../../core/text";
import { Warned } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { Field, Submit } from "./plain";
import { SignInPage } from "./SignInPage";

export default function SignIn({ onDone }: { onDone: (me: Schemas["Me"]) => void }) {
  const [wantsCode, setWantsCode] = useState(false);
  const { error, fields, busy, run, complete } = useTry();
  // The server asks for a code after the right password only; it stays asked for.
  if ("code" in fields && !wantsCode) setWantsCode(true);
  const submit = (form: FormData) => {
    const given = (name: string) => wellFormed(String(form.get(name) ?? ""));
    const [email, password, code] = [given("email").trim(), given("password"), given("code")];
    const missing = {
      email: !email.includes("@") && "An e-mail address, such as you@practice.example",
      password: !password && "Your password",
    };
    if (!complete(missing)) return;
    const body = { email, password, ...(code ? { code } : {}) };
    void run(async () => onDone(await must(api.POST("/api/session", { body }))));
  };
  return (
    <SignInPage said="It counts, times and remembers, so that your hands are free." onSubmit={submit}>
      <Field
        label="E-mail"
        type="email"
        name="email"
        autoComplete="username"
        error={fields.email}
        autoFocus
      />
      <Field
        label="Password"
        type="password"
        name="password"
        autoComplete="current-password"
        error={fields.password}
      />
      {wantsCode && (
        <Field
          label="Code of your second device"
          name="code"
          inputMode="numeric"
          autoComplete="one-time-code"
          error={fields.code}
          autoFocus
        />
      )}
      {error?.message && !fields.code && <Warned role="alert">{error.message}</Warned>}
      <Submit type="submit" $kind="main" disabled={busy} $large>
        {busy ? "Signing in…" : "Sign in"}
      </Submit>
    </SignInPage>
  );
}
