import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { toMark } from "../body/marks";
import { Arc } from "./Arc";
import { CourseChart } from "./Course";

/** x of every line's end in an arc drawing. */
const ends = (svg: string, stroke: string) =>
  [...svg.matchAll(/<line [^>]*x2="([\d.-]+)"[^>]*stroke="(var\(--\w+\))"/g)]
    .filter((m) => m[2] === stroke)
    .map((m) => Number(m[1]));

describe("arc", () => {
  const draw = (left: number, right: number) =>
    renderToStaticMarkup(
      <Arc
        label="Neck rotation"
        reference={80}
        flagBelow={68}
        hands={[
          { side: "left", value: left },
          { side: "right", value: right },
        ]}
      />,
    );
  it("draws left to the left and right to the right, further for more", () => {
    const svg = draw(60, 60);
    const [l] = ends(svg, "var(--left)");
    const [r] = ends(svg, "var(--right)");
    expect(l).toBeLessThan(130);
    expect(r).toBeGreaterThan(130);
    expect(130 - (l as number)).toBeCloseTo((r as number) - 130, 5);
    expect(ends(draw(30, 60), "var(--left)")[0]).toBeGreaterThan(l as number);
  });
  it("says its numbers to a screen reader", () => {
    expect(draw(60, 72)).toContain("Neck rotation: left 60°; right 72°; usual 80°");
  });
});

describe("course", () => {
  const steps = [
    { date: "2026-01-01", before: 8, after: 4, note: "3 st" },
    { date: "2026-01-08", before: 6 },
    { date: "2026-01-15", after: 3 },
  ];
  const svg = renderToStaticMarkup(
    <CourseChart
      label="Soleus, left"
      min={0}
      max={10}
      ticks={[0, 5, 10]}
      unit=""
      main={{ color: "red", steps }}
      band={[2, 4]}
    />,
  );
  it("draws every value once and nothing for what is missing", () => {
    expect(svg.match(/<circle/g)).toHaveLength(4);
    expect(svg).toContain(
      "1 Jan: before 8, after 4, 3 st; 8 Jan: before 6, after –; 15 Jan: before –, after 3",
    );
  });
  it("puts higher values higher, and draws the reference band", () => {
    const y = [...svg.matchAll(/<circle [^>]*cy="([\d.]+)"/g)].map((m) => Number(m[1]));
    expect(y[0]).toBeLessThan(y[1] as number);
    expect(svg).toMatch(/<rect [^>]*fill="var\(--accent-soft\)"/);
  });
  it("stands with a single visit", () => {
    expect(
      renderToStaticMarkup(
        <CourseChart
          label="x"
          min={0}
          max={10}
          ticks={[]}
          unit="°"
          main={{ color: "red", steps: [{ date: "2026-01-01", before: 1 }] }}
        />,
      ),
    ).not.toContain("NaN");
  });
});

describe("marks", () => {
  const charted = {
    point: "p",
    identity: "i",
    muscle: "soleus",
    side: "left",
    figure: "figure-1",
    view: "back",
    x: 1,
    y: 2,
    place: { fibre: 0, along_pct: 1, across_mm: 0 },
    taut_band: "yes",
    grade: 3,
    nprs: 7,
    familiar: "partly",
    charted_ms: 0,
  } as const;
  const point = { ...charted, where: [], contacts: [], positions: [] };
  it("tell activity by kind and show the latest number", () => {
    expect(toMark(point)).toMatchObject({ kind: "active", grade: 3, number: 7 });
    expect(toMark({ ...point, familiar: "no", after_nprs: 3, after_grade: 1 })).toMatchObject({
      kind: "latent",
      grade: 1,
      number: 3,
    });
    expect(toMark(point, "earlier").kind).toBe("earlier");
    expect(toMark(point).label).toBe("Soleus, left, pulls away, 7 of 10");
  });
});
