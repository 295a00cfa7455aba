// The frame around every desk screen: where you are, what is still unsent, who
// is signed in.
import { type ReactNode, useEffect, useState } from "react";
import { Dialog, DialogTrigger, Popover } from "react-aria-components";
import { NavLink } from "react-router";
import { styled } from "styled-components";
import { api, type Schemas } from "../api/client";
import { outbox, type Standing } from "../core/outbox";
import { Button } from "./controls";

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 22px;
  height: 56px;
  padding: 0 24px;
  border-bottom: 1px solid var(--line-soft);
  background: var(--card);
  .name {
    font-family: var(--serif);
    font-size: 21px;
    font-weight: 600;
    color: var(--accent);
    text-decoration: none;
    display: flex;
    gap: 9px;
    align-items: center;
  }
  nav {
    display: flex;
    gap: 4px;
    flex: 1;
  }
  nav a {
    text-decoration: none;
    color: var(--ink-soft);
    padding: 7px 13px;
    border-radius: 9px;
    font-weight: 560;
  }
  nav a[aria-current="page"] {
    background: var(--accent-soft);
    color: var(--accent);
  }
`;
const Page = styled.div`
  display: grid;
  grid-template-rows: 56px minmax(0, 1fr);
  height: 100%;
`;
const Dot = styled.span<{ $bad: boolean }>`
  display: inline-flex;
  gap: 7px;
  align-items: center;
  font-size: 13px;
  color: ${(p) => (p.$bad ? "var(--warn)" : "var(--ink-soft)")};
  &::before {
    content: "";
    width: 9px;
    height: 9px;
    border-radius: 50%;
    background: ${(p) => (p.$bad ? "var(--warn)" : "var(--good)")};
  }
`;

export function useStanding() {
  const [s, set] = useState<Standing>({ waiting: 0, others: 0, stuck: [], online: true, signedOut: false });
  useEffect(() => outbox.watch(set), []);
  return s;
}

/** In words: is everything in the record? */
export function Sent() {
  const s = useStanding();
  const parts: string[] = [];
  if (s.waiting) parts.push(`${s.waiting} to send`);
  if (!s.online) parts.push(s.signedOut ? "signed out: sign in again to send" : "no connection");
  if (s.stuck.length) parts.push(`${s.stuck.length} refused`);
  if (s.others) parts.push(`${s.others} of a colleague wait for their sign-in`);
  const bad = !s.online || s.stuck.length > 0;
  return (
    <>
      <Dot $bad={bad} role="status" data-sent={s.waiting === 0 && s.online}>
        {parts.length ? parts.join(" · ") : "All in the record"}
      </Dot>
      {s.stuck.length > 0 && <Refused reasons={s.stuck} />}
    </>
  );
}

const Reasons = styled(Popover)`
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 14px;
  padding: 16px 18px;
  max-width: 440px;
  box-shadow: 0 12px 34px rgb(0 0 0 / 16%);
  ul {
    margin: 8px 0 12px;
    padding-left: 18px;
    overflow-wrap: anywhere;
  }
`;

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
          <p className="quiet" style={{ marginBottom: 10 }}>
            They stay on this device until you let them go.
          </p>
          <Button onPress={() => void outbox.dismiss()}>Read; let them go</Button>
        </Dialog>
      </Reasons>
    </DialogTrigger>
  );
}

export const Mark = () => (
  <svg width="22" height="22" viewBox="0 0 32 32" aria-hidden>
    <rect width="32" height="32" rx="9" fill="#2f5d54" />
    <path d="M16 5c5 5 5 17 0 22-5-5-5-17 0-22z" fill="#f1c98b" />
  </svg>
);

export function Shell({
  me,
  onSignOut,
  children,
}: {
  me: Schemas["Me"];
  onSignOut: () => void;
  children: ReactNode;
}) {
  return (
    <Page>
      <Bar>
        <NavLink className="name" to="/">
          <Mark />
          Mokren
        </NavLink>
        <nav aria-label="Main">
          <NavLink to="/" end>
            Day
          </NavLink>
          <NavLink to="/clients">Clients</NavLink>
          {me.role !== "front-desk" && <NavLink to="/atlas">Atlas</NavLink>}
          {me.role !== "front-desk" && <NavLink to="/spine">Spine</NavLink>}
          {me.role === "owner" && <NavLink to="/practice">Practice</NavLink>}
        </nav>
        <Sent />
        <span className="quiet">{me.name}</span>
        <Button
          onPress={async () => {
            await api.DELETE("/api/session").catch(() => undefined);
            onSignOut();
          }}
        >
          Sign out
        </Button>
      </Bar>
      <main style={{ minHeight: 0, overflow: "auto" }}>{children}</main>
    </Page>
  );
}
