// Which part of a view is shown: how close, and around which place. Places and
// lengths are in view units, so that nothing depends on the size of the screen.
import { createContext, useContext } from "react";
import { scaleOf, type View } from "./views";

export interface Place {
  x: number;
  y: number;
}

export interface Zoom extends Place {
  /** 1 is the whole view. */
  k: number;
}

/** The box of a whole view, with a little room around it. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
  /** A place to be touched exactly, not a part to be seen calmly. */
  fine?: boolean;
}
export const boxOf = (width: number): Box => ({ x: -6, y: -8, width: width + 12, height: 1016 });

/** At the closest a fingertip of 44 px covers no more than 20 mm of a grown-up, on a
 * figure of 300 px too. */
export const closest = 14;

export const whole = (box: Box): Zoom => ({ k: 1, x: box.x + box.width / 2, y: box.y + box.height / 2 });

/** What is seen: x, y, width, height. */
export function windowOf(z: Zoom, box: Box): [number, number, number, number] {
  const w = box.width / z.k;
  const h = box.height / z.k;
  return [z.x - w / 2, z.y - h / 2, w, h];
}

const between = (v: number, least: number, most: number) => Math.min(most, Math.max(least, v));

/** No closer than the closest, and never past the edge of the view. */
function within(z: Zoom, box: Box): Zoom {
  const k = between(z.k, 1, closest);
  const dx = box.width / k / 2;
  const dy = box.height / k / 2;
  return {
    k,
    x: between(z.x, box.x + dx, box.x + box.width - dx),
    y: between(z.y, box.y + dy, box.y + box.height - dy),
  };
}

/** What is chosen never fills more than so much of what is seen, nor comes
 * closer than this. */
const room = 0.78;
const calmly = 6;

/** So much of the view, in its units, is round a place that is charted: 13 cm of a grown-up. */
const fineUnits = 77 * room;

/** What is to be seen round a place that is to be touched exactly. */
export const finely = ({ x, y }: Place, scale: number): Box => {
  const size = fineUnits * scale;
  return { x: x - size / 2, y: y - size / 2, width: size, height: size, fine: true };
};

/** So close that a part of the view fills what is seen: as wide as the view, or as a
 * pane that is wider in its shape (width by height). */
export function fitted(part: Box, box: Box, shape = 0): Zoom {
  const wide = Math.max(box.width, box.height * shape);
  const k = Math.min(
    (wide * room) / part.width,
    (box.height * room) / part.height,
    part.fine ? closest : calmly,
  );
  return within({ k, x: part.x + part.width / 2, y: part.y + part.height / 2 }, box);
}

/** On the way from one to the other. */
export function halfway(a: Zoom, b: Zoom, share: number): Zoom {
  const k = a.k * (b.k / a.k) ** share;
  // The place goes as the size does, so that the way looks straight.
  const f = a.k === b.k ? share : (1 / a.k - 1 / k) / (1 / a.k - 1 / b.k);
  return { k, x: a.x + (b.x - a.x) * f, y: a.y + (b.y - a.y) * f };
}

/** Closer by a factor (farther below 1); the place stays where it is on screen. */
export function closer(z: Zoom, by: number, at: Place, box: Box): Zoom {
  const k = between(z.k * by, 1, closest);
  const f = z.k / k;
  return within({ k, x: at.x + (z.x - at.x) * f, y: at.y + (z.y - at.y) * f }, box);
}

/** What is under the hand goes along with it. */
export const moved = (z: Zoom, by: Place, box: Box): Zoom =>
  within({ ...z, x: z.x - by.x, y: z.y - by.y }, box);

/** How close the body around is shown. */
export const Closeness = createContext(1);

/** How much larger marks are drawn than the body around would have them. */
export const MarkSize = createContext(1);

/** A body so high on screen has marks that are read at arm's length. */
const readable = 640;

/** A small pane has a small body, and marks and numbers as large as a tall one's. */
export const markSize = (bodyPixels: number) =>
  bodyPixels > 0 ? Math.min(4, Math.max(1, readable / bodyPixels)) : 1;

/** The length that lines, marks and labels keep on screen, however close. */
export const useScale = (view: View) => scaleOf(view) / useContext(Closeness);

/** The same for marks and the numbers beside them, in panes of any size. */
export const useMarkScale = (view: View) => useScale(view) * useContext(MarkSize);
