import { useState } from "react";
import { api, must } from "../../api/client";
import { Button, Card, Text, ErrorPanel } from "../../parts/controls";
import { Row, Said } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { missingOf, NewPassword, nothingChosen } from "../signin/NewPassword";

export function Password() {
  const [now, setNow] = useState("");
  const [chosen, setChosen] = useState(nothingChosen);
  const [done, setDone] = useState(false);
  const { error, fields, busy, run, complete } = useTry();
  const change = async () => {
    setDone(false);
    if (!complete({ now: !now && "Your password as it is", ...missingOf(chosen) })) return;
    const body = { now, new: chosen.first };
    if (await run(async () => must(api.PUT("/api/me/password", { body })))) {
      setNow("");
      setChosen(nothingChosen);
      setDone(true);
    }
  };
  return (
    <Card $gap={3} data-password>
      <h2>Password</h2>
      <Text
        label="Current password"
        type="password"
        name="now"
        autoComplete="current-password"
        value={now}
        onChange={setNow}
        error={fields.now}
      />
      <NewPassword
        label="New: three or four words are good"
        chosen={chosen}
        onChange={setChosen}
        fields={fields}
      />
      {error?.message && Object.keys(fields).length === 0 && <ErrorPanel error={error} />}
      <Row $gap={3}>
        <Button isDisabled={busy} onPress={change}>
          Change it
        </Button>
        {done && <Said role="status">Changed. Your other devices are signed out.</Said>}
      </Row>
    </Card>
  );
}
