// What the therapist's own hands have borne today and this week; nobody sees
// another's.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import { useAsk } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";

export interface HandLoad {
  /** What the hand has done this week. */
  holds: Schemas["HandUse"][];
  /** The day that today is. */
  day: number;
  today: number;
  week: number;
  limit: number;
}

export function useHandLoad({ core, open, state }: LiveVisit, me: string): HandLoad | undefined {
  const asked = useMemo(() => {
    const here = state.holds.flatMap((h) =>
      h.author === me && h.status !== "aside" && h.contact
        ? [{ contact: h.contact, seconds: h.summary.pressure_s + h.summary.overrun_s, day: open.today }]
        : [],
    );
    const around = (state.runs ?? []).flatMap((r) =>
      r.author === me
        ? r.steps.flatMap((s) =>
            s.contact && s.took_s ? [{ contact: s.contact, seconds: s.took_s, day: open.today }] : [],
          )
        : [],
    );
    return { holds: [...open.hand_uses, ...here, ...around] };
  }, [open.hand_uses, open.today, state.holds, state.runs, me]);
  const load = useAsk(core, "load", asked);
  if (!load) return undefined;
  const today = load.days.find((d) => d.day === open.today)?.thumb_minutes ?? 0;
  return {
    holds: asked.holds,
    day: open.today,
    today,
    week: load.week_thumb_minutes,
    limit: load.limit_minutes,
  };
}
