// What the person who is signed in may do. The core decides; the session brings its answer.
import type { Schemas } from "./api/client";

type Me = Pick<Schemas["Me"], "rights">;

/** Whether an operation may be called, or a type of event written. A session that was kept
 * by an older program brings no rights. */
export const may = (me: Me, right: Schemas["Right"]) => me.rights?.includes(right) ?? false;
