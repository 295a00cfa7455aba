// From charted points to marks on the figure.
import type { Schemas } from "../api/client";
import { plain, sentence } from "../parts/words";
import type { Mark } from "./Figure";

const scales = ["not tender", "tender", "tender, winces", "pulls away", "not to be touched"];
export const gradeWord = (g: number) => scales[g] ?? "";

export function toMark(p: Schemas["FoundPoint"], earlier = false): Mark {
  const active = p.familiar === "yes" || p.familiar === "partly";
  const number = p.after_nprs ?? p.nprs;
  return {
    id: p.point,
    x: p.x,
    y: p.y,
    grade: p.after_grade ?? p.grade,
    kind: earlier ? "earlier" : active ? "active" : "latent",
    number,
    label: `${sentence(plain(p.muscle))}, ${p.side}${earlier ? ", earlier visit" : ""}, ${gradeWord(p.grade)}${number === undefined ? "" : `, ${number} of 10`}`,
  };
}
