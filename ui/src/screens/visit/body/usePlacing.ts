// A place that is said by touching the body: where an answer of the screening
// holds, or where a movement is felt.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";
import type { Feeling, Measuring } from "../measure/reading";
import type { PosturePlace } from "../posture/lines";

export function usePlacing({ state, write }: LiveVisit) {
  /** The question whose regions a touch adds to. */
  const [question, ask] = useState<Schemas["QuestionID"]>();
  /** Its answer when it was opened: the body comes to it once, and stays while
   * places are added. */
  const [asked, setAsked] = useState<Schemas["ScreenedAnswer"]>();
  const setQuestion = (q: Schemas["QuestionID"] | undefined) => {
    ask(q);
    setAsked(state.answers.find((x) => x.question === q));
  };
  /** The reading whose felt place a touch says. */
  const [feeling, setFeeling] = useState<Feeling>();
  /** The reading that is taken now: how, is drawn. */
  const [measuring, setMeasuring] = useState<Measuring>();
  /** The posture measure that was touched, on the body or in its list. */
  const [posture, setPosture] = useState<PosturePlace>();

  /** Adds a region to an answer; what an earlier visit said of it stays. */
  const placeAnswer = (found: Schemas["UnderOut"]) => {
    const own = state.answers.find((x) => x.question === question);
    const base = own ?? state.known_answers.findLast((x) => x.question === question && x.answer !== "no");
    if (!base || !found.region || base.regions?.includes(found.region)) return;
    const side = base.side && base.side !== found.side ? "midline" : found.side;
    const answer: Schemas["ScreenedAnswer"] = {
      question: base.question,
      answer: base.answer,
      ...(own?.since ? { since: own.since } : {}),
      ...(own?.note ? { note: own.note } : {}),
      side,
      regions: [...(base.regions ?? []), found.region],
    };
    write("screening-answered", { answers: [answer] });
  };
  return {
    question,
    setQuestion,
    asked,
    feeling,
    setFeeling,
    measuring,
    setMeasuring,
    posture,
    setPosture,
    placeAnswer,
  };
}
