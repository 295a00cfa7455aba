import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { View } from "./views";
import { PostureLines } from "./PostureLines";

type Landmark = Schemas["Landmark"];
/** Two sides 100 from the middle; in the front view the client's left is on the right. */
const pair = (id: string, view: View, y: number): Landmark[] =>
  (["left", "right"] as const).map((side) => ({
    id,
    side,
    x: 240 + ((side === "left") === (view === "front") ? 100 : -100),
    y,
  }));
const figures: Record<string, Landmark[]> = {
  front: pair("acromion", "front", 180),
  back: [
    ...pair("acromion", "back", 180),
    ...pair("scapula-medial-border", "back", 230),
    { id: "T7", side: "midline", x: 240, y: 260 },
  ],
  left: [
    { id: "C7", side: "midline", x: 300, y: 150 },
    { id: "tragus", side: "left", x: 240, y: 90 },
    { id: "asis", side: "left", x: 200, y: 450 },
    { id: "psis", side: "left", x: 300, y: 450 },
  ],
};

function draw(view: View, posture: Partial<Schemas["Posture"]>[]) {
  const client = new QueryClient();
  for (const [v, landmarks] of Object.entries(figures)) client.setQueryData(["figure", v], { landmarks });
  const flags = posture.map((p) => ({ measure: p.measure ?? "", flagged: true, reason: "", source: "" }));
  return renderToStaticMarkup(
    <QueryClientProvider client={client}>
      <svg>
        <PostureLines view={view} posture={posture as Schemas["Posture"][]} flags={flags} />
      </svg>
    </QueryClientProvider>,
  );
}

/** The ends of the first drawn line: x, y, x, y. */
const line = (svg: string) =>
  svg
    .match(/<path d="M([\d.-]+),([\d.-]+)L([\d.-]+),([\d.-]+)/)
    ?.slice(1)
    .map(Number) as [number, number, number, number];

describe("posture lines", () => {
  const high: Partial<Schemas["Posture"]>[] = [
    { measure: "shoulder-height", degrees: 4, high_side: "right" },
  ];
  it("stand higher on the high side in every view, by the angle that was read", () => {
    for (const [view, side] of [
      ["front", "left"],
      ["back", "right"],
    ] as const) {
      const [x1, y1, x2, y2] = line(draw(view, high));
      // y grows downward; the client's right is on the left of the front view.
      expect(side === "left" ? y1 < y2 : y2 < y1).toBe(true);
      expect((Math.atan2(Math.abs(y2 - y1), x2 - x1) * 180) / Math.PI).toBeCloseTo(4, 5);
      expect(draw(view, high)).toContain("4°");
    }
  });
  it("show the head's angle from the seventh neck vertebra forward", () => {
    const [x1, y1, x2, y2] = line(draw("left", [{ measure: "craniovertebral-angle", degrees: 44 }]));
    expect([x1, y1]).toEqual([300, 150]);
    expect((Math.atan2(y1 - y2, x1 - x2) * 180) / Math.PI).toBeCloseTo(44, 5);
  });
  it("tip the pelvis down at the front", () => {
    const [x1, y1, x2, y2] = line(draw("left", [{ measure: "pelvic-tilt", side: "left", degrees: 12 }]));
    const front = x1 < x2 ? y1 : y2,
      rear = x1 < x2 ? y2 : y1;
    expect(front).toBeGreaterThan(rear);
  });
  it("measure the blade from the spine on its own side", () => {
    const svg = draw("back", [{ measure: "scapula-distance", side: "right", cm: 9.2 }]);
    expect(line(svg)).toEqual([240, 230, 340, 230]);
    expect(svg).toContain("9.2 cm");
  });
  it("draw nothing where a view cannot show it", () => {
    expect(draw("left", high)).not.toContain("<path");
    expect(draw("front", [{ measure: "craniovertebral-angle", degrees: 44 }])).not.toContain("<path");
    expect(draw("front", [])).not.toContain("data-posture-lines");
  });
});
