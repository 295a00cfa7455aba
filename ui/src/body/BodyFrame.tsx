// The frame of one view of the body: the drawing as tall as there is room, its
// name beneath.
import { styled } from "styled-components";

export const BodyFrame = styled.figure`
  margin: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  justify-items: center;
  height: 100%;
  min-height: 0;
  svg {
    height: 100%;
    max-width: 100%;
    touch-action: none;
    border-radius: 14px;
    outline-offset: -3px;
  }
  svg:focus:not(:focus-visible) {
    outline: none;
  }
  svg[data-live="true"] {
    cursor: crosshair;
  }
  figcaption {
    font-size: var(--t1);
    color: var(--ink-soft);
    padding-top: 2px;
  }
`;
