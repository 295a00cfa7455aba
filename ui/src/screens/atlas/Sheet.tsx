import { styled } from "styled-components";
import { Card } from "../../parts/controls";

/** A card of facts. */
export const Sheet = styled(Card)`
  gap: var(--s3);
  h3 {
    margin-top: 4px;
  }
  tr:first-child > * {
    border-top: 0;
  }
  ol,
  ul {
    margin: 4px 0 0;
    padding-left: 20px;
  }
  li {
    margin: 3px 0;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 560;
    color: var(--ink-soft);
    padding: 5px 8px 5px 0;
    vertical-align: top;
    width: 82px;
    font-size: var(--t1);
  }
  td {
    padding: 5px 8px 5px 0;
    vertical-align: top;
    border-top: 1px solid var(--line-soft);
  }
  th {
    border-top: 1px solid var(--line-soft);
  }
  .latin {
    font-style: italic;
  }
  .second {
    color: var(--other);
  }
  ul.own {
    list-style: none;
    padding: 0;
  }
`;
