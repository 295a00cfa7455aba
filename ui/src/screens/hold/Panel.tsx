import { styled } from "styled-components";
import { upright } from "../../theme";

/** What is set beside a hold. It leaves the scores and the stop free, which stand in the side
 * column, or below where the screen is upright. */
export const Panel = styled.div`
  position: absolute;
  right: 436px;
  top: 74px;
  z-index: 5;
  width: 460px;
  max-width: calc(100vw - 36px);
  ${upright} {
    right: 18px;
  }
  padding: 18px;
  border: 1px solid var(--line);
  border-radius: 14px;
  background: var(--paper);
  display: grid;
  gap: 12px;
  font-size: 19px;
  button {
    min-height: 56px;
  }
  .code {
    font: 640 46px/1.2 var(--text);
    letter-spacing: 0.1em;
  }
  .quiet {
    color: var(--ink-soft);
  }
  .keys {
    display: flex;
    gap: 8px;
  }
`;
