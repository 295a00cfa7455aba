// What is pressed.
import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import { css, styled } from "styled-components";

export const Button = styled(AriaButton)<
  ButtonProps & { $kind?: "main" | "plain" | "stop"; $large?: boolean }
>`
  border: 1px solid
    ${(p) => (p.$kind === "main" ? "var(--accent)" : p.$kind === "stop" ? "var(--stop)" : "var(--line)")};
  background: ${(p) => (p.$kind === "main" ? "var(--accent)" : p.$kind === "stop" ? "var(--stop-soft)" : "var(--card)")};
  color: ${(p) => (p.$kind === "main" ? "var(--accent-ink)" : p.$kind === "stop" ? "var(--stop)" : "var(--ink)")};
  border-radius: var(--r1);
  padding: 8px 16px;
  min-height: ${(p) => (p.$large ? "56px" : "var(--touch)")};
  font-weight: 560;
  cursor: pointer;
  &[data-hovered] {
    filter: brightness(0.97);
  }
  &[data-pressed] {
    transform: translateY(1px);
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
`;

/** A button that looks like what it says, and no more. */
export const bare = css`
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  text-align: left;
  cursor: pointer;
`;

/** A button that reads as a word in a sentence. */
export const WordButton = styled(AriaButton)<ButtonProps>`
  ${bare}
  color: var(--accent);
  text-decoration: underline;
`;

/** A key at the table: for a knuckle, in dim light. */
export const Key = styled(AriaButton)<ButtonProps & { $tone?: "go" | "warn" | "stop"; $slim?: boolean }>`
  border: 1px solid ${(p) => (p.$tone === "stop" ? "var(--stop)" : "var(--line)")};
  border-radius: var(--r2);
  cursor: pointer;
  min-height: ${(p) => (p.$slim ? "44px" : "auto")};
  padding: ${(p) => (p.$slim ? "0 16px" : "4px 6px")};
  font-weight: 620;
  font-size: ${(p) => (p.$slim ? 16 : 19)}px;
  line-height: 1.15;
  background: ${(p) => (p.$tone === "go" ? "var(--accent)" : p.$tone === "stop" ? "var(--stop-soft)" : p.$tone === "warn" ? "var(--warn-soft)" : "var(--card)")};
  color: ${(p) => (p.$tone === "go" ? "var(--accent-ink)" : p.$tone === "stop" ? "var(--stop)" : "var(--ink)")};
  kbd {
    display: block;
    font: 500 14px var(--text);
    opacity: 0.92;
    margin-top: 3px;
  }
  &[data-pressed] {
    filter: brightness(1.2);
  }
  &[data-disabled] {
    opacity: 0.3;
    cursor: default;
  }
`;
