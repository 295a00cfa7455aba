import { styled } from "styled-components";

/** Long buttons, one below the other. */
export const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  button {
    width: 100%;
    text-align: left;
    display: flex;
    gap: 10px;
    justify-content: space-between;
  }
  .off {
    color: var(--ink-soft);
    font-weight: 400;
    white-space: nowrap;
  }
`;
