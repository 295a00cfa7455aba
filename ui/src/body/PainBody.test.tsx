// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Drawing } from "./drawing";
import type { Lattice } from "./lattice";
import { PainBody } from "./PainBody";

// Five cells in a row, ten units apart, in the middle of a small figure.
const cells = [0, 1, 2, 3, 4].map((q) => ({ q, r: 0, x: 220 + 10 * q, y: 400, g: 0, s: "left" }));
const lattice = { size: 10, regions: ["lower-calf"], cells } as unknown as Lattice;
const ache = { kind: "ache", intensity: 5 } as const;

let strokes: string[][];
let places: string[];

function show(drawing: Drawing = new Map(), size = 0) {
  const client = new QueryClient();
  client.setQueryData(["lattice", "back"], lattice);
  client.setQueryData(["figure", "back"], { width: 480, shapes: [], inner: [], shades: [] });
  render(
    <QueryClientProvider client={client}>
      <PainBody
        view="back"
        drawing={drawing}
        brush={ache}
        size={size}
        onStroke={(s) => strokes.push(s)}
        onPlace={(p) => places.push(p)}
      />
    </QueryClientProvider>,
  );
  const body = screen.getByRole("application");
  // The picture is as large as its units, so that a pixel is a unit.
  Object.assign(body, {
    getScreenCTM: () => new DOMMatrix(),
    setPointerCapture: () => undefined,
  });
  return body;
}
const press = (body: Element, ...keys: string[]) => {
  for (const key of keys) fireEvent.keyDown(body, { key });
};
const ids = (...q: number[]) => q.map((n) => `back:${n},0`);

describe("the body to paint on", () => {
  beforeEach(() => {
    strokes = [];
    places = [];
  });
  afterEach(cleanup);

  it("is walked by arrows, names the place, and paints with Space", () => {
    const body = show(new Map([["back:3,0", ache]]));
    press(body, "ArrowRight", " ");
    expect(places).toEqual(["lower calf, left, painted"]);
    expect(strokes).toEqual([ids(3)]);
    press(body, "ArrowLeft");
    expect(places.at(-1)).toBe("lower calf, left");
    expect(strokes).toHaveLength(1);
  });

  it("keeps the brush down with Enter until Enter, or until one leaves", () => {
    const body = show();
    press(body, "ArrowLeft", "Enter", "ArrowRight");
    expect(strokes).toEqual([ids(1), ids(2)]);
    press(body, "Enter");
    strokes = [];
    press(body, "ArrowRight");
    expect(strokes).toEqual([]);
    press(body, "Enter", "ArrowRight");
    expect(strokes).toEqual([ids(3), ids(4)]);
    fireEvent.blur(body);
    strokes = [];
    press(body, "ArrowLeft");
    expect(strokes).toEqual([]);
  });

  it("leaves no cell out on a quick stroke, and hands it on once, at its end", () => {
    const body = show();
    fireEvent.pointerDown(body, { pointerId: 1, clientX: 220, clientY: 400 });
    fireEvent.pointerMove(body, { pointerId: 1, clientX: 260, clientY: 400 });
    expect(strokes).toEqual([]);
    expect(body.dataset.cells).toBe("5");
    fireEvent.pointerUp(body, { pointerId: 1 });
    expect(strokes).toEqual([ids(0, 1, 2, 3, 4)]);
  });

  it("paints as wide as the brush is", () => {
    const body = show(new Map(), 1);
    press(body, "Enter");
    expect(strokes).toEqual([ids(1, 2, 3)]);
  });

  it("paints nothing beside the body", () => {
    const body = show();
    fireEvent.pointerDown(body, { pointerId: 1, clientX: 20, clientY: 20 });
    fireEvent.pointerUp(body, { pointerId: 1 });
    expect(strokes).toEqual([]);
  });
});
