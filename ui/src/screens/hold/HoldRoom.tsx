// The room of a hold: what to do now, the pace, the clocks and the numbers, each
// always in the same place.
import { styled } from "styled-components";
import { TableRoom } from "../../parts/layout";
import { phone, upright } from "../../theme";
import { onPhone } from "./onPhone";

export const HoldRoom = styled(TableRoom)`
  .head {
    display: flex;
    gap: 18px;
    align-items: center;
    font-size: 19px;
    color: var(--ink-soft);
    min-width: 0;
  }
  .head button {
    white-space: nowrap;
  }
  .what {
    flex: 1 1 auto;
    min-width: 0;
    line-height: 1.15;
    > * {
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  }
  .head h1 {
    color: var(--ink);
    font-family: var(--serif);
    font-size: 23px;
  }
  .protocol {
    font-size: 17px;
  }
  .say {
    display: grid;
    grid-template-rows: auto auto 190px auto minmax(0, 1fr) auto;
    gap: 8px;
    min-height: 0;
  }
  .say[data-ended="true"] {
    grid-template-rows: auto auto minmax(0, 1fr);
  }
  .do {
    font-family: var(--serif);
    font-size: clamp(40px, 5.1vw, 72px);
    line-height: 1.04;
    font-weight: 580;
    min-height: 2.08em;
    text-wrap: balance;
  }
  .trace {
    min-height: 0;
  }
  .over {
    color: var(--warn);
  }
  .do[data-tone="ease"] {
    color: var(--warn);
  }
  .do[data-tone="stop"] {
    color: var(--stop);
  }
  .do[data-tone="deep"] {
    color: var(--accent);
  }
  .ask {
    font-size: 30px;
    font-weight: 600;
    min-height: 44px;
    color: var(--accent);
  }
  .moving {
    font-size: 20px;
    font-weight: 450;
    line-height: 1.25;
    color: var(--ink);
    text-wrap: pretty;
  }
  .pace {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr) auto;
    gap: 26px;
    align-items: center;
    min-height: 0;
  }
  .care {
    font-size: 20px;
    line-height: 1.3;
    color: var(--ink-soft);
    text-wrap: pretty;
  }
  .care b {
    color: var(--warn);
  }
  .clocks {
    display: flex;
    align-items: center;
    gap: 26px;
  }
  .big {
    font-size: clamp(84px, 10vw, 132px);
    line-height: 0.86;
    font-weight: 640;
    font-variant-numeric: tabular-nums;
    letter-spacing: -0.03em;
  }
  .unit {
    font-size: 28px;
    color: var(--ink-soft);
    line-height: 1.2;
    padding-bottom: 4px;
  }
  .unit b {
    color: var(--ink);
  }
  .why {
    font-size: 20px;
    color: var(--ink-soft);
    min-height: 28px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .bar {
    height: 20px;
    border-radius: 10px;
    background: var(--line-soft);
    overflow: hidden;
    position: relative;
    margin-bottom: 6px;
  }
  .bar i {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--accent);
  }
  .bar i[data-over="true"] {
    background: var(--warn);
  }
  .scores {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    grid-template-rows: 76px repeat(4, minmax(72px, 1fr));
    gap: 8px;
    min-height: 0;
  }
  .stop {
    font-size: 26px;
  }
  .keys {
    display: grid;
    grid-template-columns: 1.7fr repeat(9, 1fr) 1.5fr;
    gap: 8px;
  }
  ${upright} {
    grid-template-rows: auto minmax(0, 1fr) auto auto;
    .what {
      flex-basis: 100%;
    }
    .say {
      grid-template-rows: auto auto 160px auto minmax(0, 1fr) auto;
    }
    .pace {
      grid-template-columns: 160px minmax(0, 1fr) auto;
    }
    .scores {
      grid-template-columns: repeat(5, 1fr);
      grid-template-rows: none;
      grid-auto-rows: 74px;
      > * {
        order: 11;
      }
    }
    .keys {
      grid-template-columns: repeat(5, 1fr);
      grid-auto-rows: 74px;
    }
    .keys > :first-child {
      grid-column: span 2;
    }
    .keys > .stop {
      grid-column: 2 / -1;
    }
  }
  ${phone} {
    ${onPhone}
  }
`;
