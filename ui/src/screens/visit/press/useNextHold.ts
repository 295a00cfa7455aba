// One touch into the next hold: between two holds, after charting, and at Press.
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";
import { listed, plain, positionName } from "../../../parts/words";
import { choiceOf, missing } from "./choice";
import { beginHold } from "./useBegin";
import { offerNow, useOffers } from "./useOffers";

/** Begins the next hold by one touch, where all that it needs is settled; else the point is
 * opened at Press, where it is chosen. */
export function useNextHold(visit: LiveVisit, me: Schemas["Me"], on = true) {
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const offers = useOffers(visit, on);
  const { state, open } = visit;
  const offered = (id: string, o = offers.find((x) => x.point === id)) => {
    const p = state.points.find((x) => x.point === id);
    if (!p || !o?.ready || !o.protocol) return undefined;
    const choice = choiceOf(state.holds, p, o.protocol, o);
    const lacks = missing(choice, me.supervised, !!state.screening.limits.slack_or_broad);
    return lacks ? undefined : { p, protocol: o.protocol, choice };
  };
  const begin = async (id: string) => {
    const next = offered(id, await offerNow(visit, id));
    if (!next) return go(`/visits/${open.visit.id}?step=press&point=${id}`);
    const begun = await beginHold(visit, next.p, next.protocol, next.choice, me.supervised);
    if ("aside" in begun) return setRefused(begun.aside);
    return go(`/visits/${open.visit.id}/hold/${begun.hold}`);
  };
  const withWhat = (id: string) => {
    const next = offered(id);
    if (!next) return "to be chosen";
    const { contact, position } = next.choice;
    return listed(plain(next.protocol), contact && plain(contact), position && positionName(position));
  };
  /** The first point in the core's order that one touch begins, or the one that is wanted. */
  const first = (wanted?: string) => {
    const ready = offers.filter((o) => offered(o.point) && !state.holds.some((h) => h.point === o.point));
    return ready.find((o) => o.point === wanted)?.point ?? ready[0]?.point;
  };
  return { begin, refused, withWhat, first };
}
