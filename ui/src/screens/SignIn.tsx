import { type FormEvent, useState } from "react";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../api/client";
import { BodyFrame } from "../body/BodyFrame";
import { BodySvg } from "../body/BodySvg";
import { viewName } from "../body/views";
import { Button, Card, Text, Trouble } from "../parts/controls";
import { Mark } from "../parts/Mark";
import { Said } from "../parts/layout";

const Room = styled.main`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(360px, 440px);
  align-items: center;
  gap: 32px;
  padding: 24px clamp(24px, 7vw, 110px);
  .figure {
    height: min(92vh, 900px);
    display: flex;
    gap: 0;
    justify-content: center;
  }
  form {
    display: grid;
    gap: 16px;
    margin-top: 20px;
  }
  h1 {
    display: flex;
    gap: 12px;
    align-items: center;
    font-size: 34px;
    color: var(--accent);
    margin-bottom: 8px;
  }
  @media (max-width: 860px) {
    grid-template-columns: 1fr;
    .figure {
      display: none;
    }
  }
`;

export function SignIn({ onDone }: { onDone: (me: Schemas["Me"]) => void }) {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [error, setError] = useState<Problem>();
  const [busy, setBusy] = useState(false);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const missing: Record<string, string> = {};
    if (!email.includes("@")) missing.email = "An e-mail address, such as you@practice.example";
    if (!password) missing.password = "Your password";
    if (Object.keys(missing).length) return setError(new Problem(422, "", missing));
    setBusy(true);
    setError(undefined);
    try {
      onDone(await must(api.POST("/api/session", { body: { email: email.trim(), password } })));
    } catch (x) {
      setError(x as Problem);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Room>
      <div className="figure" aria-hidden>
        {(["front", "back"] as const).map((v) => (
          <BodyFrame key={v}>
            <BodySvg view={v} />
            <figcaption>{viewName[v]}</figcaption>
          </BodyFrame>
        ))}
      </div>
      <Card>
        <h1>
          <Mark />
          Mokren
        </h1>
        <p className="quiet">It counts, times and remembers, so that your hands are free.</p>
        <form onSubmit={submit} noValidate>
          <Text
            label="E-mail"
            type="email"
            name="email"
            autoComplete="username"
            value={email}
            onChange={setEmail}
            error={error?.fields.email}
            autoFocus
          />
          <Text
            label="Password"
            type="password"
            name="password"
            autoComplete="current-password"
            value={password}
            onChange={setPassword}
            error={error?.fields.password}
          />
          {error?.message && <Trouble error={error} />}
          <Button type="submit" $kind="main" isDisabled={busy} $large>
            {busy ? "Signing in…" : "Sign in"}
          </Button>
        </form>
        <Said className="quiet" $small>
          Mokren supports licensed practice and does not diagnose. Local law and your scope of practice come
          first.
        </Said>
      </Card>
    </Room>
  );
}
