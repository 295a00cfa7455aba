// The points of a case on the body, beside the place that was marked.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import { Figure, type Mark } from "../../../body/Figure";
import type { View } from "../../../body/views";
import type { Core } from "../../../core/core";
import { useAskAll } from "../../../core/useAsk";
import { listed, plain } from "../../../parts/words";

interface Props {
  core: Core;
  points: Schemas["TruePoint"][];
  review: Schemas["PracticeReview"];
}

export function TrueBody({ core, points, review }: Props) {
  const asked = useMemo(
    () =>
      Object.fromEntries(
        points.map((p, i) => [
          String(i),
          {
            muscle: p.muscle,
            side: p.side,
            place: { fibre: p.fibre ?? 0, along_pct: p.along_pct, across_mm: p.across_mm },
          },
        ]),
      ),
    [points],
  );
  const places = useAskAll(core, "place", asked);
  const own = review.input.actions.findLast((a) => a.action === "mark");
  if (!places) return null;
  const view = (places["0"]?.view ?? own?.view ?? "back") as View;
  const marks: Mark[] = points.flatMap((p, i): Mark[] => {
    const at = places[String(i)];
    if (!at || at.view !== view) return [];
    const kind = p.response === "stubborn" || p.response === "sham" ? "latent" : "active";
    return [
      { id: String(i), x: at.x, y: at.y, grade: p.tenderness, kind, label: listed(plain(p.muscle), p.side) },
    ];
  });
  if (own?.view === view && own.x !== undefined && own.y !== undefined)
    marks.push({ id: "own", x: own.x, y: own.y, grade: 1, kind: "earlier", label: "Where it was marked" });
  const [first] = marks;
  const around = 170;
  const fit = first && {
    x: first.x - around / 2,
    y: first.y - around / 2,
    width: around,
    height: around,
  };
  return (
    <Figure view={view} marks={marks} fit={fit} label="Where the points were, and where it was marked" />
  );
}
