// Whether everything is in the record, and what is not.
import { useEffect, useState } from "react";
import { Dialog, DialogTrigger, Popover } from "react-aria-components";
import { styled } from "styled-components";
import { outbox } from "../core/outbox";
import type { SyncStatus } from "../core/syncStatus";
import { Button } from "./controls";
import { keepFile } from "./keepFile";
import { Row } from "./layout";

const Dot = styled.span<{ $bad: boolean }>`
  display: inline-flex;
  gap: 7px;
  align-items: center;
  white-space: nowrap;
  font-size: var(--t1);
  color: ${(p) => (p.$bad ? "var(--warn)" : "var(--ink-soft)")};
  &::before {
    content: "";
    width: 9px;
    height: 9px;
    border-radius: 50%;
    background: ${(p) => (p.$bad ? "var(--warn)" : "var(--good)")};
  }
`;

/** The status of the outbox: what is first said at once, later words once a frame; an event is counted
 * as waiting, stored and sent, and each changes a word. Before that, nothing is claimed. */
function useSyncStatus() {
  const [s, set] = useState<SyncStatus>();
  useEffect(() => {
    let latest: SyncStatus | undefined;
    let frame = 0;
    const draw = () => {
      frame = 0;
      set(latest);
    };
    const stop = outbox.watch((now) => {
      // A page out of sight has no frames.
      const atOnce = !latest || document.hidden;
      latest = now;
      if (atOnce) set(now);
      else frame ||= requestAnimationFrame(draw);
    });
    return () => {
      stop();
      cancelAnimationFrame(frame);
    };
  }, []);
  return s;
}

/** In words: is everything in the record? */
export function Sent() {
  const s = useSyncStatus();
  if (!s) return <Dot $bad={false} role="status" data-sent={false} />;
  const parts: string[] = [];
  const entries = s.waiting === 1 ? "1 entry" : `${s.waiting} entries`;
  if (s.online && s.waiting) parts.push(`Saving ${entries}…`);
  if (!s.online && !s.signedOut) parts.push(s.waiting ? `Offline: ${entries} waiting` : "Offline");
  if (s.signedOut) parts.push("Signed out: sign in again to send");
  if (s.stuck.length) parts.push(`${s.stuck.length} refused`);
  if (s.others) parts.push(`${s.others} of a colleague waiting for their sign-in`);
  const bad = !s.online || s.stuck.length > 0;
  return (
    <>
      <Dot $bad={bad} role="status" data-sent={s.waiting === 0 && s.online}>
        {parts.length ? parts.join(" · ") : "Saved"}
      </Dot>
      {s.stuck.length > 0 && <Refused reasons={s.stuck} />}
    </>
  );
}

const Reasons = styled(Popover)`
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: var(--r2);
  padding: 16px 18px;
  max-width: 440px;
  box-shadow: 0 12px 34px rgb(0 0 0 / 16%);
  ul {
    margin: 8px 0 12px;
    padding-left: 18px;
    overflow-wrap: anywhere;
  }
`;

/** As JSON: what was done, when, in which visit, and why it was refused. */
async function keepRefused() {
  const list = (await outbox.refused()).map(({ event, stuck }) => ({
    at: new Date(event.device_ms).toISOString(),
    visit: event.visit,
    client: event.client,
    type: event.type,
    body: event.body,
    why: stuck,
  }));
  const blob = new Blob([JSON.stringify(list, undefined, 2)], { type: "application/json" });
  keepFile({ name: "mokren-refused.json", blob });
}

/** What the record would not take, each with its reason; kept until it was read. */
function Refused({ reasons }: { reasons: string[] }) {
  return (
    <DialogTrigger>
      <Button>Why</Button>
      <Reasons>
        <Dialog aria-label="Not taken into the record">
          <h2>Not taken into the record</h2>
          <ul>
            {reasons.map((r, i) => (
              <li key={`${i}${r}`}>{r}</li>
            ))}
          </ul>
          <p className="quiet">They stay on this device until you discard them.</p>
          <Row $wrap>
            <Button onPress={() => void keepRefused()}>Keep them as a file</Button>
            <Button onPress={() => void outbox.dismiss()}>Discard</Button>
          </Row>
        </Dialog>
      </Reasons>
    </DialogTrigger>
  );
}
