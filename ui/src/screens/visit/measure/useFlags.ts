// Whether readings of a movement are short, by what is usual and by the other side.
import type { Schemas } from "../../../api/client";
import { useAskAll } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";

const opposite = { left: "right", right: "left", midline: undefined } as const;

/** The question about one reading. */
export const flagOf = (
  movement: Schemas["MovementID"],
  side: Schemas["Side"],
  before: (side: Schemas["Side"]) => number | undefined,
  age: number | undefined,
): Schemas["RangeIn"] => {
  const other = opposite[side];
  return { movement, active_deg: before(side), other_side_deg: other && before(other), age };
};

/** By side, of those that were read. */
export function useFlags(
  { core, open }: LiveVisit,
  movement: Schemas["MovementID"],
  sides: Schemas["Side"][],
  before: (side: Schemas["Side"]) => number | undefined,
) {
  const read = sides.filter((s) => before(s) !== undefined);
  return useAskAll(
    core,
    "range",
    Object.fromEntries(read.map((s) => [s, flagOf(movement, s, before, open.client.age)])),
  );
}
