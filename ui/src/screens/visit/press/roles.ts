import type { Schemas } from "../../../api/client";

/** Who may decide alone: override a block, countersign for a student. */
export const licensed = (me: Pick<Schemas["Me"], "role">) => me.role === "owner" || me.role === "therapist";
