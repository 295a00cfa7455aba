// What a hold at each point would begin with, in the order in which they are pressed.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { now } from "../../../core/clock";
import { useAskVisit } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";

const none: Schemas["Offer"][] = [];

export function useOffers(visit: LiveVisit, on = true): Schemas["Offer"][] {
  // Of the moment at which the step was opened: points do not change places under a finger.
  const [opened] = useState(now);
  const now_ms = opened + (visit.open.context.clock_ms ?? 0);
  return useAskVisit(visit, "hold-offers", on ? { now_ms } : undefined)?.offers ?? none;
}

/** What a hold at a point would begin with by everything that is written by now: a protocol that was
 * chosen a moment ago may not be on screen yet. */
export async function offerNow(visit: LiveVisit, point: string): Promise<Schemas["Offer"] | undefined> {
  const now_ms = now() + (visit.open.context.clock_ms ?? 0);
  return (await visit.ask("hold-offers", { now_ms })).offers.find((o) => o.point === point);
}
