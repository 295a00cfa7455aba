// Where the client feels it when a point is pressed: said by touching regions on
// the body, by painting, as usual, or nowhere else. The usual pattern stays
// hidden until something of it was said.
import { useCallback, useMemo, useState } from "react";
import type { Schemas } from "../../../api/client";
import type { Drawing, Paint } from "../../../body/drawing";

export interface Answer {
  regions: Schemas["RegionID"][];
  painted: string[];
  none: boolean;
}

/** What a touch on the body does to the answer. */
export type Saying = "touch" | "paint";

const unsaid: Answer = { regions: [], painted: [], none: false };
export const isSaid = (a: Answer) => a.none || a.regions.length > 0 || a.painted.length > 0;

/** What was answered at a point. */
export const answerOf = (p: Schemas["FoundPoint"]): Answer => ({
  regions: p.referral ?? [],
  painted: p.painted ?? [],
  none: p.no_referral ?? false,
});

/** An answer as it is shown when nobody is asked: without one, the usual pattern. */
export const usualToo = (a: Answer): Answer => (isSaid(a) ? a : { ...a, none: true });

/** How a painted answer is drawn: it has no kind. */
export const feltPaint: Paint = { kind: "sharp", intensity: 6 };

export function useAnswer() {
  const [answer, setAnswer] = useState<Answer>(unsaid);
  const [saying, setSaying] = useState<Saying>();
  const begin = useCallback((p?: Schemas["FoundPoint"]) => {
    setAnswer(p ? answerOf(p) : unsaid);
    setSaying(undefined);
  }, []);
  const say = (over: Partial<Answer>) => setAnswer((a) => ({ ...a, none: false, ...over }));
  const toggle = (r: Schemas["RegionID"]) =>
    say({
      regions: answer.regions.includes(r) ? answer.regions.filter((x) => x !== r) : [...answer.regions, r],
    });
  /** A stroke that begins on painted cells takes them away. */
  const stroke = (cells: string[]) => {
    const old = new Set(answer.painted);
    const takes = cells.length > 0 && old.has(cells[0] ?? "");
    for (const c of cells)
      if (takes) old.delete(c);
      else old.add(c);
    say({ painted: [...old] });
  };
  const drawing: Drawing = useMemo(
    () => new Map(answer.painted.map((c) => [c, feltPaint])),
    [answer.painted],
  );
  return { answer, say, toggle, stroke, saying, setSaying, begin, drawing };
}
