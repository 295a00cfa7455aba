// A second factor: six digits of another device, beside the password.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Text } from "../../parts/controls";
import { Row, Said, Stack } from "../../parts/layout";
import { useTry } from "../../parts/useTry";

const Scanned = styled(Row)`
  flex-wrap: wrap;
  img {
    border-radius: var(--r1);
    background: #fff;
  }
  code {
    overflow-wrap: anywhere;
    user-select: all;
  }
`;

export function Factor() {
  const queries = useQueryClient();
  const q = useQuery({ queryKey: ["second-factor"], queryFn: () => must(api.GET("/api/me/second-factor")) });
  const [made, setMade] = useState<Schemas["NewSecondFactor"]>();
  const again = () => queries.invalidateQueries({ queryKey: ["second-factor"] });
  return (
    <Card $gap={3} data-factor={q.data?.on ? "on" : "off"}>
      <h2>Second factor</h2>
      <p className="quiet">
        Beside the password, six digits are asked for that change every half minute. An app for one-time codes
        on your telephone shows them. If it is lost, an owner makes you a link.
      </p>
      {q.data?.on && (
        <>
          <Said>It is on.</Said>
          <ByPassword
            then="Switch it off"
            ask={async (body) => {
              await must(api.POST("/api/me/second-factor/off", { body }));
              void again();
            }}
          />
        </>
      )}
      {q.data && !q.data.on && !made && (
        <ByPassword
          then="Switch it on"
          ask={async (body) => setMade(await must(api.POST("/api/me/second-factor", { body })))}
        />
      )}
      {made && (
        <Prove
          made={made}
          onOn={() => {
            setMade(undefined);
            void again();
          }}
        />
      )}
    </Card>
  );
}

function Prove({ made, onOn }: { made: Schemas["NewSecondFactor"]; onOn: () => void }) {
  const [code, setCode] = useState("");
  const { fields, error, busy, run } = useTry();
  const prove = async () => {
    if (await run(async () => must(api.PUT("/api/me/second-factor", { body: { code } })))) onOn();
  };
  return (
    <Scanned $gap={4} $align="start">
      <img
        src={`data:image/png;base64,${made.png}`}
        alt="The secret, for the camera"
        width={200}
        height={200}
      />
      <Stack $gap={3}>
        <span>
          Scan it, or type <code>{made.secret}</code>
        </span>
        <Text
          label="The six digits that it shows now"
          name="code"
          inputMode="numeric"
          autoComplete="one-time-code"
          value={code}
          onChange={setCode}
          error={fields.code ?? (error && !fields.code ? error.message : undefined)}
        />
        <Row>
          <Button $kind="main" isDisabled={busy || code.length < 6} onPress={prove}>
            It is on
          </Button>
        </Row>
      </Stack>
    </Scanned>
  );
}

interface ByPasswordProps {
  then: string;
  ask: (body: { password: string }) => Promise<void>;
}

/** What only the person may do: the password is asked for again. */
function ByPassword({ then, ask }: ByPasswordProps) {
  const [password, setPassword] = useState("");
  const { fields, error, busy, run } = useTry();
  return (
    <Row $gap={3} $align="end" $wrap>
      <Text
        label="Your password"
        type="password"
        name="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        error={fields.password ?? (error && !fields.password ? error.message : undefined)}
      />
      <Button isDisabled={busy || !password} onPress={() => run(() => ask({ password }))}>
        {then}
      </Button>
    </Row>
  );
}
