import type { ReactNode } from "react";
import { styled } from "styled-components";
import { Mark } from "../../parts/Mark";

const Sheet = styled.main`
  min-height: 100%;
  max-width: 720px;
  margin: 0 auto;
  padding: 12px 14px 28px;
  display: grid;
  gap: 12px;
  align-content: start;
  header {
    display: flex;
    gap: 10px;
    align-items: center;
    font-family: var(--serif);
    font-size: 19px;
    font-weight: 600;
    color: var(--accent);
  }
  h1 {
    font-size: 22px;
  }
  .body {
    height: min(58vh, 620px);
  }
  [role="radio"],
  [aria-pressed] {
    min-height: 44px;
  }
  .parts {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 6px;
    button {
      min-height: 48px;
    }
  }
  .place {
    min-height: 20px;
    font-size: var(--t1);
    color: var(--ink-soft);
    text-align: center;
  }
`;

/** A page of the client's own device, under the practice's name. */
export function Page({ name = "Mokren", children }: { name?: string; children: ReactNode }) {
  return (
    <Sheet>
      <header>
        <Mark /> {name}
      </header>
      {children}
    </Sheet>
  );
}
