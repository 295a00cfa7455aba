import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { toMark } from "../body/marks";
import { Arc } from "./Arc";
import { along } from "../screens/progress/time";
import { LookedAt, TimeRow } from "./TimeRow";

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

describe("a course on a shared axis", () => {
  const draw = (readings: { date: string; before?: number; after?: number }[]) =>
    renderToStaticMarkup(
      <LookedAt value="2026-01-11">
        <TimeRow
          label="Soleus, left"
          readings={readings}
          width={560}
          x={along([
            { visit: "a", date: "2026-01-01" },
            { visit: "b", date: "2026-01-11" },
          ])}
          min={0}
          max={10}
          band={[2, 4]}
          unit=""
          treated={["2026-01-01"]}
        />
      </LookedAt>,
    );
  const svg = draw([
    { date: "2026-01-01", before: 8, after: 4 },
    { date: "2026-01-02", before: 6 },
    { date: "2026-01-11", after: 3 },
  ]);
  /** Left edge and height of every dot of a kind. */
  const dots = (kind: string) => {
    const [, path = ""] = new RegExp(`class="${kind}"[^>]* d="([^"]*)"`).exec(svg) ?? [];
    return [...path.matchAll(/M([\d.]+) ([\d.]+)a/g)].map((m) => m.slice(1).map(Number));
  };
  it("draws every value once and says it", () => {
    expect(dots("before")).toHaveLength(2);
    expect(dots("after")).toHaveLength(2);
    expect(svg).toContain("Soleus, left: 2026-01-01 8, after 4; 2026-01-02 6; 2026-01-11 –, after 3");
  });
  it("lays days apart as they were apart, and higher values higher", () => {
    const [first = [], second = []] = dots("before");
    const [again = [], last = []] = dots("after");
    const wider = 3.8 - 3; // of a hollow dot
    const [from = 0, by = 0, to = 0] = [first[0], second[0], last[0]];
    expect((by - from) / (to - wider - from)).toBeCloseTo(0.1, 5);
    expect(first[1]).toBeLessThan(again[1] ?? 0);
  });
  it("stands with a single visit", () => {
    expect(draw([{ date: "2026-01-01", before: 1 }])).not.toContain("NaN");
    expect(along([{ visit: "a", date: "2026-01-01" }])("2026-01-01")).toBe(0.5);
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
