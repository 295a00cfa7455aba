// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { Figure, type Mark } from "./Figure";

const mark: Mark = { id: "m", x: 200, y: 400, grade: 2, kind: "active", label: "Soleus, left" };

let chosen: string[];
let dropped: [string, number, number][];
let touched: number;

function show(m: Partial<Mark> = {}) {
  const client = new QueryClient();
  client.setQueryData(["figure", "back"], { width: 480, shapes: [], inner: [], shades: [] });
  render(
    <QueryClientProvider client={client}>
      <Figure
        view="back"
        marks={[{ ...mark, ...m }]}
        onSelect={(id) => chosen.push(id)}
        onDrop={(id, p) => dropped.push([id, p.x, p.y])}
        onTouch={() => touched++}
      />
    </QueryClientProvider>,
  );
  // The picture is as large as its units, so that a pixel is a unit.
  Object.assign(screen.getByRole("application"), {
    getScreenCTM: () => new DOMMatrix(),
    setPointerCapture: () => undefined,
  });
  return screen.getByRole("button", { name: "Soleus, left" });
}

const finger = (clientX: number, clientY: number, pointerId = 1) => ({ pointerId, clientX, clientY });

describe("a mark on the body", () => {
  beforeEach(() => {
    chosen = [];
    dropped = [];
    touched = 0;
  });
  afterEach(cleanup);

  it("is chosen by a touch, and stays where it is though the finger trembles", () => {
    const m = show();
    fireEvent.pointerDown(m, finger(203, 401));
    fireEvent.pointerMove(m, finger(206, 404));
    fireEvent.pointerUp(m, finger(206, 404));
    expect(chosen).toEqual(["m"]);
    expect(dropped).toEqual([]);
    expect(touched).toBe(0);
  });

  it("goes as far as the finger, wherever it was taken hold of", () => {
    const m = show();
    fireEvent.pointerDown(m, finger(208, 395));
    fireEvent.pointerMove(m, finger(208, 415));
    expect(m.getAttribute("transform")).toBe("translate(200 420)");
    fireEvent.pointerUp(m, finger(218, 425));
    expect(dropped).toEqual([["m", 210, 430]]);
  });

  it("is moved by a slow hand too: many small steps are a long way", () => {
    const m = show();
    fireEvent.pointerDown(m, finger(200, 400));
    for (let y = 401; y <= 412; y++) fireEvent.pointerMove(m, finger(200, y));
    fireEvent.pointerUp(m, finger(200, 412));
    expect(dropped).toEqual([["m", 200, 412]]);
  });

  it("goes back when a second finger comes, or the device takes the finger away", () => {
    const m = show();
    fireEvent.pointerDown(m, finger(200, 400));
    fireEvent.pointerMove(m, finger(200, 440));
    fireEvent.pointerDown(m, finger(300, 300, 2));
    fireEvent.pointerUp(m, finger(300, 300, 2));
    fireEvent.pointerUp(m, finger(200, 440));
    fireEvent.pointerDown(m, finger(200, 400));
    fireEvent.pointerMove(m, finger(200, 440));
    fireEvent.pointerCancel(m, finger(200, 440));
    fireEvent.pointerUp(m, finger(200, 440));
    expect(dropped).toEqual([]);
    expect(m.getAttribute("transform")).toBe("translate(200 400)");
  });

  it("of an earlier visit is chosen and not moved", () => {
    const m = show({ kind: "earlier" });
    fireEvent.pointerDown(m, finger(200, 400));
    fireEvent.pointerMove(m, finger(200, 440));
    fireEvent.pointerUp(m, finger(200, 440));
    expect(chosen).toEqual(["m"]);
    expect(dropped).toEqual([]);
  });
});
