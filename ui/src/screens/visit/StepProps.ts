import type { LiveVisit } from "../../core/useVisit";

/** What every step of a visit works on. */
export interface StepProps {
  visit: LiveVisit;
}
