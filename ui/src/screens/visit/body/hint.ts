import type { Schemas } from "../../../api/client";
import { fromTheSide } from "../../../body/fromTheSide";
import type { Path } from "../steps";
import type { Body } from "./useBody";

/** What a touch would do now, or what is drawn. */
export function hint(state: Schemas["State"], { step, part }: Path, b: Body, place: string): string {
  switch (step) {
    case "draw":
      if (b.painting.before) return "Dashed: gone. Full: new. Pale: both.";
      return place || "Paint by finger or mouse; arrow keys and Space work too.";
    case "screen":
      return b.placing.question ? "Touch the body where it is." : "Hatched: do not press";
    case "suspect":
      return "The pain drawing, and the chosen suspect with its usual pattern.";
    case "find":
      if (b.answering.saying === "touch") return "Tap where the client feels it.";
      if (b.answering.saying === "paint") return place || "Paint where the client feels it.";
      if (b.said) return "Dots: usual here, a guide. Strokes: what this client says.";
      return b.chosen && !b.aim
        ? "The muscle that is searched: touch where the band is."
        : "Touch the place, or aim with the arrow keys.";
    case "measure":
      if (b.placing.feeling) return "Touch the body where it is felt.";
      if (b.marking) return "Touch a lozenge where you see the sign.";
      if (
        part === "posture" &&
        !b.main.views.includes("left") &&
        state.posture.some((x) => fromTheSide.includes(x.measure))
      )
        return "Forward head and pelvic tilt are drawn on the left side.";
  }
  return b.subject ? "Dots: usual referral, a guide. Strokes: this client's." : "";
}
