// From charted points to marks on the figure.
import type { Schemas } from "../api/client";
import { listed, plain, sentence } from "../parts/words";
import type { Mark } from "./Figure";

const scales = ["not tender", "tender", "tender, winces", "pulls away", "can't bear touch"];
export const gradeWord = (g: number | undefined) => (g === undefined ? "" : (scales[g] ?? ""));

/** The size of a mark whose tenderness nobody said. */
const unsaidGrade = 1;

const kinds = { active: "active", latent: "latent", none: "spot", earlier: "earlier" } as const;

/** What the client said of it, where nobody has judged it. */
const saidOf = (p: Schemas["FoundPoint"]) =>
  p.familiar === "yes" || p.familiar === "partly" ? "active" : p.familiar === "no" ? "latent" : "none";

/** activity is the core's, where it is known already. */
export function toMark(
  p: Schemas["FoundPoint"],
  activity?: Schemas["PointWork"]["activity"] | "earlier",
): Mark {
  const earlier = activity === "earlier";
  const number = p.after_nprs ?? p.nprs;
  return {
    id: p.point,
    x: p.x,
    y: p.y,
    grade: p.after_grade ?? p.grade ?? unsaidGrade,
    kind: kinds[activity ?? saidOf(p)],
    number,
    label: listed(
      sentence(plain(p.muscle)),
      p.side,
      earlier && "earlier visit",
      p.grade !== undefined && gradeWord(p.grade),
      number !== undefined && `${number} of 10`,
    ),
  };
}
