import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { type Mark, MarkShape } from "./Mark";
import { Closeness, MarkSize } from "./zoom";

const mark = (id: string, x: number, y: number, more?: Partial<Mark>): Mark => ({
  id,
  x,
  y,
  grade: 2,
  kind: "active",
  label: id,
  number: 4,
  ...more,
});

const draw = (m: Mark, before: Mark[] = [], closeness = 1, size = 1) =>
  renderToStaticMarkup(
    <Closeness value={closeness}>
      <MarkSize value={size}>
        <svg>
          <MarkShape m={m} before={before} at={m} view="back" selected={false} onGrab={() => {}} />
        </svg>
      </MarkSize>
    </Closeness>,
  );

const attribute = (svg: string, name: string) =>
  Number(new RegExp(`<text[^>]* ${name}="([-\\d.]+)"`).exec(svg)?.[1]);

describe("a mark's number", () => {
  it("stands to the right, and to the left where another is near", () => {
    const m = mark("b", 100, 100);
    expect(attribute(draw(m), "x")).toBeGreaterThan(0);
    expect(attribute(draw(m, [mark("a", 104, 110)]), "x")).toBeLessThan(0);
    expect(attribute(draw(m, [mark("a", 104, 160)]), "x")).toBeGreaterThan(0);
  });
  it("has its size whatever the body's, and the lens grows less", () => {
    const font = (size: number) => attribute(draw(mark("a", 0, 0), [], 1, size), "font-size");
    const reach = (size: number) => attribute(draw(mark("a", 0, 0), [], 1, size), "x");
    expect(font(2) / font(1)).toBeCloseTo(2, 5);
    expect(reach(2) / reach(1)).toBeLessThan(2);
  });
  it("is near by what is seen, not by the body: apart when one comes close", () => {
    const other = mark("a", 104, 110);
    expect(attribute(draw(mark("b", 100, 100), [other], 6), "x")).toBeGreaterThan(0);
  });
  it("is absent where none was said", () => {
    expect(draw(mark("a", 0, 0, { number: undefined }))).not.toContain("<text");
  });
});

describe("a mark's lens", () => {
  it("is full when active, hollow with a point when latent, dashed of an earlier visit", () => {
    expect(draw(mark("a", 0, 0))).toMatch(/<path[^>]*fill="var\(--point\)"/);
    expect(draw(mark("a", 0, 0, { kind: "latent" }))).toMatch(/<path[^>]*fill="var\(--card\)"/);
    expect(draw(mark("a", 0, 0, { kind: "earlier" }))).toContain("stroke-dasharray");
  });
});
