// The frame of one view of the body: the drawing as tall as there is room, its
// name beneath; and two of them.
import { styled } from "styled-components";

/** Two views beside each other. Close up, two parts of the body would run into each
 * other: a line keeps them apart. */
export const BodyPair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  grid-template-rows: minmax(0, 1fr);
  gap: var(--s3);
  min-height: 0;
  > * + * {
    border-left: 1px solid var(--line-soft);
  }
`;

export const BodyFrame = styled.figure`
  margin: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  justify-items: center;
  height: 100%;
  min-height: 0;
  > svg {
    /* All of the pane, so that what is close has all of it too. */
    width: 100%;
    height: 100%;
    touch-action: none;
    /* A layer of its own: on its way it is stretched, not painted again. */
    will-change: transform;
    /* What lies beside it comes into sight at once when one goes back. */
    overflow: visible;
    border-radius: 14px;
    outline-offset: -3px;
  }
  /* The whole view, where a finger does not paint, scrolls with its page. */
  svg[data-still="true"] {
    touch-action: pan-y;
  }
  .mark {
    touch-action: none;
  }
  svg:focus:not(:focus-visible) {
    outline: none;
  }
  svg[data-live="true"] {
    cursor: crosshair;
  }
  position: relative;
  overflow: hidden;
  .zoom {
    position: absolute;
    right: 0;
    bottom: 24px;
    display: grid;
    gap: var(--s1);
  }
  .zoom button {
    width: 44px;
    height: 44px;
    border: 1px solid var(--line-soft);
    border-radius: var(--r1);
    background: var(--card);
    color: var(--ink-soft);
    opacity: 0.9;
    font-size: var(--t4);
    cursor: pointer;
  }
  @media print {
    .zoom {
      display: none;
    }
  }
  .inset {
    position: absolute;
    left: 0;
    bottom: 24px;
    width: 58px;
    height: 120px;
    border: 1px solid var(--line-soft);
    border-radius: var(--r1);
    background: var(--card);
    opacity: 0.92;
    pointer-events: none;
  }
  figcaption {
    position: relative;
    width: 100%;
    text-align: center;
    background: var(--body-ground, var(--card));
    font-size: var(--t1);
    color: var(--ink-soft);
    padding-top: 2px;
  }
`;
