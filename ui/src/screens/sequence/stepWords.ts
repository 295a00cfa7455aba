// A step in words.
import type { Schemas } from "../../api/client";
import { plain, sentence } from "../../parts/words";

/** A step in words: what, and where. */
export const whatOf = (s: Schemas["StepRun"]) => sentence(plain(s.technique));
export const whereOf = (s: Schemas["StepRun"]) => plain(s.where.split(":")[0] ?? "");
