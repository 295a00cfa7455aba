import { useState } from "react";
import { useNavigate } from "react-router";
import { Button, Card, Text } from "../../parts/controls";
import { Stack } from "../../parts/layout";
import { Page } from "./Page";

const codeLength = 8;

/** The code is entered; only its length is known here. */
export function Enter({ at = "/draw" }: { at?: string }) {
  const go = useNavigate();
  const [code, setCode] = useState("");
  const [error, setError] = useState("");
  const submit = (e: React.FormEvent) => {
    e.preventDefault();
    const c = code.replace(/[\s-]/g, "").toUpperCase();
    if (c.length !== codeLength) setError("The code has eight letters and figures.");
    else go(`${at}/${c}`);
  };
  return (
    <Page>
      <Card>
        <Stack as="form" onSubmit={submit} $gap={3}>
          <h1>Your code</h1>
          <Text
            label="Code from your therapist"
            name="code"
            value={code}
            onChange={(v) => {
              setCode(v);
              setError("");
            }}
            error={error}
            autoComplete="off"
          />
          <Button type="submit" $kind="main">
            Go on
          </Button>
        </Stack>
      </Card>
    </Page>
  );
}
