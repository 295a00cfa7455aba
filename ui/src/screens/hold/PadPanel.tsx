// Pairing the client's pad: a code to enter there, what it does, and taking it
// back.
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import type { PadSeen } from "../../core/useVisitWire";
import { Key, ErrorPanel } from "../../parts/controls";
import { Panel } from "./Panel";

export const padWords: Record<PadSeen, string> = {
  never: "Client's pad",
  there: "Client's pad connected",
  lost: "Pad is lost",
};

interface Props {
  visit: string;
  seen: PadSeen;
  onClose: () => void;
}

export function PadPanel({ visit, seen, onClose }: Props) {
  const [link, setLink] = useState<Schemas["NewLink"]>();
  const [error, setError] = useState<Error>();
  const path = { params: { path: { id: visit } } };
  const attempt = (work: () => Promise<void>) => {
    setError(undefined);
    work().catch((e: Error) => setError(e));
  };
  return (
    <Panel role="dialog" aria-label="The client's pad">
      {link ? (
        <>
          <p>
            On the client's phone open <b>{location.host}/hand</b> and enter
          </p>
          <p className="code" data-code>
            {link.code.slice(0, 4)} {link.code.slice(4)}
          </p>
          <p className="quiet">It shows the practice's name, the numbers and stop; nothing else.</p>
        </>
      ) : (
        <p className="quiet">
          A phone in the client's hand says the number and stop by itself. A new code ends the one before.
        </p>
      )}
      <p role="status">
        {seen === "there"
          ? "The pad is there; its numbers are in the hold."
          : seen === "lost"
            ? "The pad is lost. Ask, and enter the numbers yourself; what it still says is sorted in later."
            : "No pad is connected."}
      </p>
      {error && <ErrorPanel error={error} />}
      <Key onPress={() => attempt(async () => setLink(await must(api.POST("/api/visits/{id}/hand", path))))}>
        {link ? "Another code" : "Create code"}
      </Key>
      <Key
        onPress={() =>
          attempt(async () => {
            await must(api.DELETE("/api/visits/{id}/hand", path));
            setLink(undefined);
          })
        }
      >
        Cancel code
      </Key>
      <Key $tone="go" onPress={onClose}>
        Done
      </Key>
    </Panel>
  );
}
