import { describe, expect, it } from "vitest";
import {
  boxOf,
  closer,
  closest,
  fitted,
  markSize,
  moved,
  type Place,
  whole,
  windowOf,
  type Zoom,
} from "./zoom";

const box = boxOf(480);
/** Where a place is on screen, in shares of the pane. */
function onScreen(z: Zoom, p: Place) {
  const [x, y, w, h] = windowOf(z, box);
  return { x: (p.x - x) / w, y: (p.y - y) / h };
}

describe("zoom", () => {
  it("shows the whole view first", () => {
    expect(windowOf(whole(box), box)).toEqual([-6, -8, 492, 1016]);
  });

  it("keeps the place under the finger where it is", () => {
    const at = { x: 190, y: 700 };
    let z = whole(box);
    const before = onScreen(z, at);
    for (const by of [1.5, 1.5, 2, 0.8]) {
      z = closer(z, by, at, box);
      expect(onScreen(z, at).x).toBeCloseTo(before.x, 9);
      expect(onScreen(z, at).y).toBeCloseTo(before.y, 9);
    }
  });

  it("goes no closer than a fingertip needs, and back to the whole", () => {
    const at = { x: 0, y: 0 };
    const z = closer(whole(box), 100, at, box);
    expect(z.k).toBe(closest);
    // 44 px on a figure of 300 px, on a client of 1.75 m.
    const mmPerPX = (box.height / closest / 300) * 1.75;
    expect(44 * mmPerPX).toBeLessThanOrEqual(20);
    expect(closer(z, 0.001, at, box)).toEqual(whole(box));
  });

  it("never shows what is past the edge", () => {
    let z = closer(whole(box), 4, { x: 200, y: 500 }, box);
    z = moved(z, { x: 1000, y: -5000 }, box);
    const [x, y, w, h] = windowOf(z, box);
    expect(x).toBeCloseTo(box.x, 9);
    expect(y + h).toBeCloseTo(box.y + box.height, 9);
    expect(w).toBeCloseTo(492 / 4, 9);
  });

  it("takes what is under the hand along", () => {
    const z = closer(whole(box), 4, { x: 240, y: 500 }, box);
    const p = { x: 250, y: 480 };
    const [, , w, h] = windowOf(z, box);
    const after = onScreen(moved(z, { x: 10, y: -20 }, box), p);
    expect(after.x - onScreen(z, p).x).toBeCloseTo(10 / w, 9);
    expect(after.y - onScreen(z, p).y).toBeCloseTo(-20 / h, 9);
  });
});

describe("what is chosen", () => {
  const part = { x: 90, y: 450, width: 300, height: 100 };
  const seen = (shape: number) => {
    const z = fitted(part, box, shape);
    const [, , , h] = windowOf(z, box);
    return { ...z, wide: Math.max(box.width / z.k, h * shape), tall: h };
  };
  it("is all in sight, with room around it, in panes of any shape", () => {
    for (const shape of [0.3, 0.48, 1, 1.8]) {
      const { wide, tall, x, y } = seen(shape);
      expect(wide).toBeGreaterThan(part.width * 1.2);
      expect(tall).toBeGreaterThan(part.height * 1.2);
      expect(y).toBeCloseTo(500, 9);
      expect(x).toBeCloseTo(240, 9);
    }
  });
  it("comes closer in a pane that is wider than the view, up to a limit", () => {
    expect(seen(1).k).toBeGreaterThan(seen(0.4).k * 1.5);
    expect(seen(10).k).toBe(6);
  });
});

describe("marks", () => {
  it("are as large on screen in a small pane as in a tall one, and not smaller than drawn", () => {
    const number = (pixels: number) => (19 * markSize(pixels) * pixels) / 1016;
    expect(number(320)).toBeCloseTo(number(640), 5);
    expect(number(640)).toBeGreaterThan(11.9);
    expect(markSize(1100)).toBe(1);
  });
  it("do not cover a body that is very small, or not there yet", () => {
    expect(markSize(60)).toBe(4);
    expect(markSize(0)).toBe(1);
  });
});
