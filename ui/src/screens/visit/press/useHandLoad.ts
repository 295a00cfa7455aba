// What the therapist's own hands have borne today and this week; nobody sees
// another's.
import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import { useAsk, useAskAll } from "../../../core/useAsk";
import type { Core } from "../../../core/core";
import type { LiveVisit } from "../../../core/useVisit";

export interface HandLoad {
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
    return { holds: [...open.hand_uses, ...here] };
  }, [open.hand_uses, open.today, state.holds, me]);
  const load = useAsk(core, "load", asked);
  if (!load) return undefined;
  const today = load.days.find((d) => d.day === open.today)?.thumb_minutes ?? 0;
  return { today, week: load.week_thumb_minutes, limit: load.limit_minutes };
}

/** What a hold with each contact would add at the most, in thumb-minutes. */
export const useAdds = (core: Core, contacts: Schemas["ContactID"][], seconds: number) =>
  useAskAll(
    core,
    "load",
    Object.fromEntries(contacts.map((contact) => [contact, { holds: [{ contact, seconds, day: 0 }] }])),
  );

/** Of the contacts that may be used at a point, those that spare the thumb more,
 * the gentlest first. */
export function gentler(
  adds: Record<string, Schemas["Load"]>,
  than: Schemas["ContactID"],
  list: Schemas["Choice"][],
) {
  const cost = (c: string) => adds[c]?.week_thumb_minutes ?? 0;
  return list
    .filter((c) => !c.why)
    .map((c) => c.id as Schemas["ContactID"])
    .filter((c) => cost(c) < cost(than))
    .sort((a, b) => cost(a) - cost(b));
}
