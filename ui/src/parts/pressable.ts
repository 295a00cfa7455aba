// How a button looks, whichever element it is.
import { css } from "styled-components";

/** The colours of a kind: ground, edge and ink. */
export const colours = (ground: string, edge: string, ink: string) => css`
  background: var(--${ground});
  border: 1px solid var(--${edge});
  color: var(--${ink});
`;
const kinds = {
  plain: colours("card", "line", "ink"),
  main: colours("accent", "accent", "accent-ink"),
  stop: colours("stop-soft", "stop", "stop"),
};

export interface Pressable {
  $kind?: keyof typeof kinds;
  $large?: boolean;
}

export const pressable = css<Pressable>`
  ${(p) => kinds[p.$kind ?? "plain"]}
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
  &[data-disabled],
  &:disabled {
    opacity: 0.45;
    cursor: default;
  }
`;
