// The room of a sequence: the step large on the left, the body on the right, the keys below.
import { styled } from "styled-components";
import { TableRoom } from "../../parts/layout";
import { phone, upright } from "../../theme";

export const SequenceRoom = styled(TableRoom)`
  && {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr) auto;
  }
  header {
    display: flex;
    gap: 18px;
    align-items: center;
    font-size: 19px;
    color: var(--ink-soft);
  }
  header h1 {
    font-size: 23px;
    color: var(--ink);
  }
  header .quiet {
    flex: 1;
  }
  .now {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(220px, 34%);
    grid-template-rows: minmax(0, 1fr);
    gap: 26px;
    min-height: 0;
  }
  .words {
    display: grid;
    gap: 10px;
    align-content: start;
    min-height: 0;
    font-size: 22px;
  }
  .words h2 {
    font-size: clamp(40px, 5vw, 68px);
    line-height: 1.04;
    text-wrap: balance;
  }
  .side {
    justify-self: start;
    padding: 4px 22px;
    border-radius: 14px;
    font: 680 34px/1.2 var(--text);
    text-transform: uppercase;
    letter-spacing: 0.06em;
    border: 3px solid var(--accent);
    color: var(--accent);
  }
  .side[data-side="right"] {
    background: var(--accent);
    color: var(--accent-ink);
  }
  .side[data-side="midline"] {
    border-style: dashed;
  }
  .where {
    font-size: 32px;
    font-weight: 600;
    color: var(--accent);
  }
  .how {
    font-size: 24px;
    line-height: 1.3;
    max-width: 34em;
    text-wrap: pretty;
  }
  [role="alert"] {
    color: var(--warn);
    font-weight: 600;
  }
  .time {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 20px;
    align-items: center;
    margin-top: 8px;
  }
  .time b {
    font: 640 clamp(64px, 8vw, 108px) / 0.95 var(--text);
    font-variant-numeric: tabular-nums;
    letter-spacing: -0.03em;
  }
  .bar {
    height: 20px;
    border-radius: 10px;
    background: var(--line-soft);
    overflow: hidden;
  }
  .bar i {
    display: block;
    height: 100%;
    background: var(--accent);
  }
  .next {
    font-size: 22px;
    color: var(--ink-soft);
  }
  .keys {
    display: grid;
    grid-template-columns: 1.7fr repeat(4, 1fr) repeat(5, 1fr) 1.4fr;
    grid-auto-rows: 92px;
    gap: 8px;
  }
  ${upright} {
    .now {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto minmax(0, 1fr);
    }
    .keys {
      grid-template-columns: repeat(6, 1fr);
    }
    .keys .main {
      grid-column: span 2;
    }
    header {
      flex-wrap: wrap;
    }
  }
  ${phone} {
    .keys {
      grid-template-columns: repeat(3, 1fr);
      grid-auto-rows: 64px;
    }
    .words h2 {
      font-size: 32px;
    }
    .how {
      font-size: 18px;
    }
  }
`;
