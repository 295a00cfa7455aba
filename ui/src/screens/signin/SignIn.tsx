import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { Warned } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { Field, Submit } from "./plain";
import { SignInPage } from "./SignInPage";

export default function SignIn({ onDone }: { onDone: (me: Schemas["Me"]) => void }) {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState<string>();
  const { error, fields, busy, run, complete } = useTry();
  // The server asks for a code after the right password only.
  const wantsCode = code !== undefined || "code" in fields;
  const submit = () => {
    const missing = {
      email: !email.includes("@") && "An e-mail address, such as you@practice.example",
      password: !password && "Your password",
    };
    if (!complete(missing)) return;
    const body = { email: email.trim(), password, ...(code ? { code } : {}) };
    void run(async () => onDone(await must(api.POST("/api/session", { body }))));
  };
  return (
    <SignInPage said="It counts, times and remembers, so that your hands are free." onSubmit={submit}>
      <Field
        label="E-mail"
        type="email"
        name="email"
        autoComplete="username"
        value={email}
        onChange={setEmail}
        error={fields.email}
        autoFocus
      />
      <Field
        label="Password"
        type="password"
        name="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        error={fields.password}
      />
      {wantsCode && (
        <Field
          label="Code of your second device"
          name="code"
          inputMode="numeric"
          autoComplete="one-time-code"
          value={code ?? ""}
          onChange={setCode}
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
