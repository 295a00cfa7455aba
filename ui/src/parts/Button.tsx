// What is pressed.
import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import { css, styled } from "styled-components";
import { colours, pressable, type Pressable } from "./pressable";

const tones = {
  plain: colours("card", "line", "ink"),
  go: colours("accent", "line", "accent-ink"),
  warn: colours("warn-soft", "line", "ink"),
  stop: colours("stop-soft", "stop", "stop"),
};

export const Button = styled(AriaButton)<ButtonProps & Pressable>`
  ${pressable}
`;

/** A button that looks like what it says, and no more; as high as a finger needs. */
export const bare = css`
  min-height: var(--touch);
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  text-align: left;
  cursor: pointer;
`;

/** A button that reads as a word in a sentence. */
export const WordButton = styled(AriaButton).attrs<ButtonProps>({ "data-word": true } as object)`
  ${bare}
  min-height: 0;
  color: var(--accent);
  text-decoration: underline;
`;

/** A key at the table: for a knuckle, in dim light. */
export const Key = styled(AriaButton)<ButtonProps & { $tone?: keyof typeof tones; $slim?: boolean }>`
  ${(p) => tones[p.$tone ?? "plain"]}
  border-radius: var(--r2);
  cursor: pointer;
  min-height: ${(p) => (p.$slim ? "44px" : "auto")};
  padding: ${(p) => (p.$slim ? "0 16px" : "4px 6px")};
  font-weight: 620;
  font-size: ${(p) => (p.$slim ? 16 : 19)}px;
  line-height: 1.15;
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
