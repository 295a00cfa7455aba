// A table of facts: quiet heads, a rule above each row, numbers that stand below each other.
import { styled } from "styled-components";

export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  td,
  th {
    padding: 7px 10px 7px 0;
    border-top: 1px solid var(--line-soft);
    text-align: left;
  }
  th {
    font-size: var(--t1);
    font-weight: 560;
    color: var(--ink-soft);
    border-top: 0;
  }
`;
