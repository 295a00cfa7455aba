import type { Schemas } from "../api/client";

/** What a hold is asked for by; numbers and name are of a practice's own copy. */
export type HoldRequest = Pick<
  Schemas["CoachStartLine"],
  "protocol" | "muscle" | "side" | "numbers" | "name" | "variant" | "stations" | "moves" | "places"
>;
