// The appointment for the client's own calendar: a file to pass on, or a code for their phone.
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { Button } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Row, Said, Stack } from "../../parts/layout";
import { useTry } from "../../parts/useTry";

export function ForClient({ visit }: { visit: string }) {
  const [link, setLink] = useState<Schemas["NewLink"]>();
  const { error, busy, run } = useTry();
  const ask = () =>
    run(async () => {
      setLink(await must(api.POST("/api/visits/{id}/date-link", { params: { path: { id: visit } } })));
    });
  return (
    <Stack $gap={2} data-for-client>
      <Row $gap={3} $wrap>
        <FileLink href={`/api/visits/${visit}/date`}>For the client's calendar</FileLink>
        <Button isDisabled={busy} onPress={() => void ask()}>
          {link ? "Another code" : "To the client's phone"}
        </Button>
      </Row>
      {link && (
        <Said role="status">
          On the phone: <b>{`${location.host}/date/${link.code}`}</b>
        </Said>
      )}
      {error && (
        <Said $tone="stop" role="alert">
          {error.message}
        </Said>
      )}
    </Stack>
  );
}
