// How a muscle is found, and what is careful about it, for this client.
import type { Schemas } from "../api/client";
import type { Core } from "./core";
import { useAsk } from "./useAsk";

interface At {
  muscle: Schemas["MuscleID"];
  side: Schemas["Side"];
  site?: string;
}

/** The question for a muscle, or for one usual place of it. */
export const guideOf = ({ muscle, side, site }: At, height_cm: number, finger_cm?: number) => ({
  muscle,
  side,
  height_cm,
  ...(site ? { site } : {}),
  ...(finger_cm ? { finger_cm } : {}),
});

/** Nothing while it is not here: what shows never is of another muscle. */
export function useGuide(core: Core, at: At | undefined, height: number, finger?: number) {
  const guide = useAsk(core, "palpate", at && guideOf(at, height, finger));
  return guide && at && guide.muscle === at.muscle && guide.side === at.side ? guide : undefined;
}
