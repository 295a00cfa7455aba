// A visit that is open.
import type { Schemas } from "../api/client";

/** What the server gives of a visit, but for its own reduction: the page makes that itself. */
export type OpenedVisit = Omit<Schemas["OpenVisit"], "state" | "schools">;
