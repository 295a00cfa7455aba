// What the therapist's own hands have borne today and this week; nobody sees
// another's.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

export interface HandLoad {
  today: number;
  week: number;
  limit: number;
  /** What a hold with this contact would add at the most, in thumb-minutes. */
  adds: (contact: Schemas["ContactID"], seconds: number) => number;
}

export function useHandLoad({ core, open, state }: LiveVisit, me: string): HandLoad {
  return useMemo(() => {
    const here = state.holds.flatMap((h) =>
      h.author === me && h.status !== "aside" && h.contact
        ? [{ contact: h.contact, seconds: h.summary.pressure_s + h.summary.overrun_s, day: open.today }]
        : [],
    );
    const load = core.handLoad([...open.hand_uses, ...here]);
    const today = load.days.find((d) => d.day === open.today)?.thumb_minutes ?? 0;
    const adds = (contact: Schemas["ContactID"], seconds: number) =>
      core.handLoad([{ contact, seconds, day: 0 }]).week_thumb_minutes;
    return { today, week: load.week_thumb_minutes, limit: load.limit_minutes, adds };
  }, [core, open.hand_uses, open.today, state.holds, me]);
}

/** Of the contacts that may be used at a point, those that spare the thumb more,
 * the gentlest first. */
export function gentler(load: HandLoad, than: Schemas["ContactID"], list: Schemas["Choice"][]) {
  const minute = 60;
  const most = load.adds(than, minute);
  return list
    .filter((c) => !c.why)
    .map((c) => c.id as Schemas["ContactID"])
    .filter((c) => load.adds(c, minute) < most)
    .sort((a, b) => load.adds(a, minute) - load.adds(b, minute));
}
