// Beginning a sequence as it was laid out, and what a session has next around its holds.
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { useAskVisit } from "../../core/useAsk";
import type { LiveVisit } from "../../core/useVisit";

type Offer = Schemas["SequenceOffer"];
type Block = Offer["block"];

export function useBeginSequence(visit: LiveVisit) {
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const begin = async ({ sequence, name, block, laid }: Offer) => {
    const run = uuidv7();
    const steps = laid.steps.map(
      ({ technique, where, side, position, contact, dose, seconds, text, point }) => ({
        technique,
        where,
        side,
        position,
        contact,
        dose,
        seconds,
        text,
        ...(point ? { point } : {}),
      }),
    );
    const body = { run, ...(sequence ? { sequence } : {}), name, block, steps };
    const why = await visit.preview("sequence-begun", body);
    setRefused(why ?? "");
    if (why) return;
    visit.write("sequence-begun", body);
    go(`/visits/${visit.open.visit.id}/sequence/${run}`);
  };
  return { begin, refused };
}

/** The sequence for the points of this visit that fills a part of the session, until one was begun
 * there. */
export function useSuggested(visit: LiveVisit, block: Block, on = true): Offer | undefined {
  const side = visit.state.points[0]?.side === "right" ? "right" : "left";
  const own = visit.open.own_sequences;
  const asked = useMemo(() => ({ side, own }) as const, [side, own]);
  const offers = useAskVisit(visit, "sequence-offers", on ? asked : undefined)?.offers;
  if (visit.state.runs?.some((r) => r.block === block)) return undefined;
  return offers?.find((o) => o.block === block && o.suggested && o.laid.steps.length > 0);
}
