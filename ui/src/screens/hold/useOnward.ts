// What the pedal does behind a hold: in a session that was begun with its warm-up it goes on to
// the next planned hold, then to the lengthening and the recheck; else back to the visit.
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import type { LiveVisit } from "../../core/useVisit";
import { useBeginSequence, useSuggested } from "../sequence/useBeginSequence";
import { useNextHold } from "../visit/press/useNextHold";

/** on while no hand is on the client: during a press nobody goes on, and the core has more to do. */
export function useOnward(
  visit: LiveVisit,
  me: Schemas["Me"],
  run: string | null,
  on: boolean,
): (() => void) | undefined {
  const go = useNavigate();
  const { first, begin } = useNextHold(visit, me, on);
  const lengthen = useSuggested(visit, "lengthen", on);
  const sequence = useBeginSequence(visit);
  const session = visit.state.runs?.some((r) => r.block === "warm-up");
  if (run && !visit.state.screen_again)
    return () => void go(`/visits/${visit.open.visit.id}/sequence/${run}`);
  if (!session || visit.state.screen_again) return undefined;
  const next = first();
  if (next) return () => void begin(next);
  return lengthen
    ? () => void sequence.begin(lengthen)
    : () => void go(`/visits/${visit.open.visit.id}?step=recheck`);
}
