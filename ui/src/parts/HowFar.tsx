import type { Schemas } from "../api/client";
import { howFar, useUnitPreferences } from "./unitPreferences";

/** How far away a structure runs, in the practice's unit. */
export function HowFar({ n }: { n: Schemas["NearBy"] }) {
  return howFar(n, useUnitPreferences());
}
