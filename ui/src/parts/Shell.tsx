// The frame around every desk screen: where you are, what is still unsent, who
// is signed in.
import { NavLink, Outlet } from "react-router";
import { UserRound } from "lucide-react";
import { styled } from "styled-components";
import { api, type Schemas } from "../api/client";
import { Button } from "./controls";
import { Mark } from "./Mark";
import { Sent } from "./Sent";
import { phone, upright } from "../theme";
import { routesOf } from "../routes";

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 22px;
  height: 56px;
  padding: 0 24px;
  border-bottom: 1px solid var(--line-soft);
  background: var(--card);
  .me {
    display: flex;
    align-items: center;
    justify-content: center;
    gap: 6px;
    min-height: var(--touch);
    min-width: 32px;
    color: var(--ink-soft);
    text-decoration: none;
  }
  .me[aria-current="page"] {
    color: var(--accent);
  }
  .name {
    font-family: var(--serif);
    font-size: 21px;
    font-weight: 600;
    color: var(--accent);
    text-decoration: none;
    display: flex;
    gap: 9px;
    align-items: center;
    min-height: 44px;
  }
  nav {
    display: flex;
    gap: 4px;
    flex: 1;
  }
  nav a {
    text-decoration: none;
    color: var(--ink-soft);
    display: flex;
    align-items: center;
    min-height: 44px;
    padding: 0 13px;
    border-radius: var(--r1);
    font-weight: 560;
  }
  nav a[aria-current="page"] {
    background: var(--accent-soft);
    color: var(--accent);
  }
  > * {
    white-space: nowrap;
  }
  ${upright} {
    gap: 10px;
    padding: 0 16px;
    .who,
    .word {
      display: none;
    }
    nav {
      gap: 0;
    }
    nav a {
      padding: 0 9px;
    }
  }
  ${phone} {
    height: auto;
    flex-wrap: wrap;
    padding: 6px 12px;
    gap: 4px 12px;
    .name {
      flex: 1;
    }
    nav {
      order: 1;
      flex: 0 0 100%;
      flex-wrap: wrap;
      justify-content: flex-start;
    }
    nav a {
      padding: 0 8px;
    }
  }
`;
const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  > main {
    min-height: 0;
    overflow: auto;
  }
`;
interface Props {
  me: Schemas["Me"];
  onSignOut: () => void;
}

/** The frame; the screen is the route within it. */
export function Shell({ me, onSignOut }: Props) {
  return (
    <Page>
      <Bar>
        <NavLink className="name" to="/" aria-label="Mokren">
          <Mark />
          <span className="word">Mokren</span>
        </NavLink>
        <nav aria-label="Main">
          {routesOf(me).map(
            ({ path, title }) =>
              title && (
                <NavLink key={path} to={path.replace(/\/:.*/, "") || "/"} end={path === "/"}>
                  {title}
                </NavLink>
              ),
          )}
        </nav>
        <Sent />
        <NavLink className="me" to="/own" aria-label={`${me.name}: your account`}>
          <UserRound size={18} aria-hidden />
          <span className="who">{me.name}</span>
        </NavLink>
        <Button
          onPress={async () => {
            await api.DELETE("/api/session").catch(() => undefined);
            onSignOut();
          }}
        >
          Sign out
        </Button>
      </Bar>
      <main>
        <Outlet />
      </main>
    </Page>
  );
}
