// The frame of one view of the body: the drawing as tall as there is room, and beneath
// it its name and how close it is, so that nothing lies over the body.
import { styled } from "styled-components";

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
  /* Room for all three, so that the body keeps its size when it is brought closer. */
  .zoom {
    display: flex;
    flex-wrap: wrap;
    justify-content: flex-end;
    gap: var(--s1);
    min-width: min(calc(3 * 44px + 2 * var(--s1)), 100%);
    margin-left: auto;
  }
  .zoom button {
    width: 44px;
    height: 44px;
    border: 1px solid var(--line-soft);
    border-radius: var(--r1);
    background: var(--card);
    color: var(--ink-soft);
    font-size: var(--t4);
    cursor: pointer;
    display: grid;
    place-items: center;
  }
  @media print {
    .zoom {
      display: none;
    }
  }
  figcaption {
    position: relative;
    width: 100%;
    min-height: 48px;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 var(--s2);
    padding: 2px 0 2px var(--s2);
    background: var(--body-ground, var(--card));
    font-size: var(--t1);
    color: var(--ink-soft);
    /* The name breaks before the keys go to a line of their own. */
    > span {
      flex: 1 1 40px;
      min-width: 0;
      line-height: 1.3;
    }
  }
`;
