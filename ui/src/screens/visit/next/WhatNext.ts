// What a step can offer when nothing has been done in it yet, and the ways to
// get there. Given once, at the top of the visit.
import { createContext } from "react";
import type { Schemas } from "../../../api/client";
import type { MuscleSide } from "../body/useAiming";
import type { StepName } from "../steps";

export interface WhatNext {
  ranking: Schemas["Ranking"];
  /** Points of earlier visits that were not charted again. */
  earlier: Schemas["FoundPoint"][];
  go: (step: StepName) => void;
  /** Lays a muscle on the body and goes to find it. */
  find: (m: MuscleSide) => void;
  /** Aims where a point of an earlier visit was. */
  again: (p: Schemas["FoundPoint"]) => void;
}

export const WhatNext = createContext<WhatNext | undefined>(undefined);
