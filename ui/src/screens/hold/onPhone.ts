// A hold on a telephone: what is told gives way, so that numbers, signs and stop
// stay in reach.
import { css } from "styled-components";

export const onPhone = css`
  height: 100dvh;
  min-height: 0;
  grid-template-rows: auto minmax(0, 1fr) auto auto;
  gap: 10px;
  .head,
  .scores,
  .keys {
    gap: 6px;
  }
  /* The way back beside the name; ceilings are never cut short. */
  .what {
    display: contents;
  }
  .head h1 {
    flex: 1 1 0;
    font-size: 20px;
    line-height: 1.1;
    white-space: normal;
  }
  .head > * {
    order: 2;
    font-size: 12px;
  }
  .head > .what > .protocol {
    order: 1;
    flex-basis: 100%;
    font-size: 16px;
  }
  .head > :last-child {
    order: 0;
  }
  .head button {
    padding: 0 7px;
    font-size: 13px;
  }
  .say,
  .say[data-ended="true"] {
    grid-template-rows: none;
    grid-auto-rows: max-content;
    align-content: start;
    overflow-y: auto;
  }
  .say[data-ended="true"] ~ .scores:not(:has(button:not([data-disabled]))),
  .say[data-ended="true"] ~ .keys > [data-disabled] {
    display: none;
  }
  .say[data-ended="true"] ~ .keys > :first-child {
    grid-column: 1 / -1;
  }
  .do {
    font-size: 30px;
    min-height: 0;
  }
  .why {
    font-size: 16px;
    min-height: 0;
  }
  .ask {
    font-size: 21px;
    min-height: 0;
  }
  .care {
    order: 1;
    white-space: normal;
    font-size: 16px;
  }
  .trace {
    order: 2;
    height: 90px;
  }
  .pace {
    grid-template-columns: 76px minmax(0, 1fr) auto;
    grid-template-rows: minmax(104px, max-content);
    gap: 10px;
  }
  .clocks {
    gap: 10px;
  }
  .big {
    font-size: 52px;
  }
  .unit {
    font-size: 16px;
  }
  .scores {
    grid-auto-rows: 54px;
  }
  .keys {
    grid-auto-rows: 56px;
  }
  .keys button,
  .scores button {
    padding: 2px;
    font-size: 15px;
  }
  .scores button[aria-label] {
    font-size: 27px;
  }
  .keys .stop {
    font-size: 22px;
  }
  kbd {
    display: none;
  }
`;
