// Where the drawing of a view is.
import type { Schemas } from "../api/client";

/** The drawing that this program was built for; the compiler knows when it is
 * another. Answers are asked for by its name, and kept for good. */
export const figureVersion: Schemas["FigureView"]["version"] = "figure-3";

export const figurePath = (view: Schemas["View"]) => `/api/figure/${view}?figure=${figureVersion}`;

/** The views that a visit begins with. */
export const firstViews: Schemas["View"][] = ["front", "back"];
