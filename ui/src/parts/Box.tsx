// A field with its label above and what is wrong with it below.
import { styled } from "styled-components";

export const Box = styled.div`
  display: grid;
  gap: 4px;
  align-content: start;
  label,
  .label,
  .react-aria-Label {
    font-size: var(--t1);
    font-weight: 560;
    color: var(--ink-soft);
  }
  input,
  textarea,
  .field {
    font: inherit;
    color: var(--ink);
    background: var(--card);
    border: 1px solid var(--line);
    border-radius: var(--r1);
    padding: 8px 11px;
    min-height: var(--touch);
    width: 100%;
  }
  [data-invalid] {
    border-color: var(--stop);
  }
  .error {
    color: var(--stop);
    font-size: var(--t1);
  }
`;
