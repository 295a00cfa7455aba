// The look: a treatment room. Desk mode is warm paper; table mode is a dim
// room at night. Everything takes its colours from here, by meaning.
import { createGlobalStyle } from "styled-components";

/** An upright tablet and narrower; a telephone. */
export const upright = "@media (max-width: 1000px)";
export const phone = "@media (max-width: 600px)";

export const Look = createGlobalStyle`
  :root {
    --paper: #f5efe6; --card: #fdfaf5; --line: #dfd3c3; --line-soft: #ebe2d5;
    --ink: #2a2420; --ink-soft: #695c51; --accent: #2f5d54; --accent-ink: #fdfaf5; --accent-soft: #dfe9e3;
    --warn: #8f4d10; --warn-soft: #f8e6cd; --stop: #8d2f3c; --stop-soft: #f5dfe0;
    --skin: #ecdccb; --skin-edge: #8d7767; --skin-line: #a58d7c; --skin-shade: #b99b80;
    --point: #5b3672; --point-soft: #e6dcec; --usual: #96731a; --felt: #7d3d8f;
    --bone: #7d7468; --muscle: #b77a68; --muscle-edge: #7c4034; --sinew: #e9dcc6; --sinew-edge: #a9947a; --keep: #2f6580; --other: #2f6b6b;
    --ache: #a9682a; --sharp: #6e3a86; --burning: #b04a2c; --numb: #33688c; --headache: #4f6a35;
    --left: #2f5d54; --right: #a2592a; --good: #2f6b4a;
    --s1: 4px; --s2: 8px; --s3: 12px; --s4: 18px; --s5: 24px;
    --t1: 13px; --t2: 15px; --t3: 17px; --t4: 20px; --t5: 28px;
    --r1: 10px; --r2: 16px;
    --text: "Figtree Variable", system-ui, sans-serif; --serif: "Source Serif 4 Variable", Georgia, serif;
    --focus: #1c6fb8; color-scheme: light;
    /* What is touched is at least so high; higher with a client on the table. */
    --touch: 44px;
  }
  [data-mode="table"] {
    --paper: #161311; --card: #211c19; --line: #40362f; --line-soft: #2c2521;
    --ink: #f4ebdf; --ink-soft: #b9ab9c; --accent: #8ecbb0; --accent-ink: #12201a; --accent-soft: #24352e;
    --skin: #574a40; --skin-edge: #a08f80; --skin-line: #9a8876; --skin-shade: #3a302a;
    --bone: #b5a999; --muscle: #9a5a4a; --muscle-edge: #d9a594; --sinew: #b8a68c; --sinew-edge: #d8c8ae; --keep: #86c3e0; --usual: #dcb95a; --point: #d9b5f0; --other: #7fc7c7;
    --warn: #f0b766; --warn-soft: #3a2a15; --stop: #f0949a; --stop-soft: #43201f;
    --focus: #9fd0ff; color-scheme: dark;
  }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body { background: var(--paper); color: var(--ink); font: 400 var(--t2)/1.45 var(--text); -webkit-font-smoothing: antialiased; }
  h1, h2, h3 { font-family: var(--serif); font-weight: 560; line-height: 1.15; margin: 0; letter-spacing: -0.005em; }
  h1 { font-size: var(--t5); } h2 { font-size: var(--t4); } h3 { font-size: 16px; }
  p { margin: 0; }
  a { color: var(--accent); }
  button { font: inherit; color: inherit; }
  :focus-visible, [data-focus-visible] { outline: 3px solid var(--focus); outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) { * { animation: none !important; transition: none !important; } }
  /* A link that stands by itself is as high as a finger needs. */
  a.stands { display: inline-flex; align-items: center; min-height: var(--touch); }
  .small { font-size: var(--t1); }
  .quiet { color: var(--ink-soft); }
  .num { font-variant-numeric: tabular-nums; }
  .away { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
`;
