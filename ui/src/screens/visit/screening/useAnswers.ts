// The answers of the screening: given, carried from earlier visits, or missing.
import { useMemo, useRef } from "react";
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";

export type Answer = Schemas["ScreenedAnswer"];
export type QuestionID = Schemas["QuestionID"];

export interface Answers {
  /** Given in this visit. */
  own: (q: QuestionID) => Schemas["GivenAnswer"] | undefined;
  /** What holds: given, or of an earlier visit. */
  base: (q: QuestionID) => Schemas["GivenAnswer"] | Schemas["Answer"] | undefined;
  missing: (q: QuestionID) => boolean;
  /** To be asked by itself: it had another answer than no. */
  singly: (q: QuestionID) => boolean;
  /** The answer to show; what is to be asked (again) shows none, so that the
   * same one can be given. */
  shown: (q: QuestionID) => Answer["answer"] | undefined;
  give: (list: Answer[]) => void;
  /** Says more of an answer that is there; what an earlier visit said stays. */
  more: (q: QuestionID, over: Partial<Answer>) => void;
}

export function useAnswers({ state, write, knows }: LiveVisit): Answers {
  const given = useMemo(() => new Map(state.answers.map((a) => [a.question, a])), [state.answers]);
  const known = useMemo(() => {
    const standing = new Map<QuestionID, Schemas["Answer"]>();
    for (const a of state.known_answers) {
      const other = standing.get(a.question);
      if (!other || other.answer === "no" || other.cleared) standing.set(a.question, a);
    }
    return standing;
  }, [state.known_answers]);
  const toAsk = new Set(state.screening.missing);
  const alone = new Set(state.screening.singly);
  const base = (q: QuestionID) => given.get(q) ?? known.get(q);
  // What was said here last, by question: on a slow device the next word comes before the state has heard
  // of it, and adds to it all the same.
  const said = useRef(new Map<QuestionID, { by: string; answer: Answer }>());
  const unheard = (q: QuestionID) => {
    const last = said.current.get(q);
    return last && !knows(last.by) ? last.answer : undefined;
  };
  const give = (answers: Answer[]) => {
    const by = write("screening-answered", { answers });
    for (const answer of answers) said.current.set(answer.question, { by, answer });
  };
  return {
    own: (q) => given.get(q),
    base,
    missing: (q) => toAsk.has(q),
    singly: (q) => alone.has(q),
    shown: (q) => (toAsk.has(q) ? undefined : base(q)?.answer),
    give,
    more: (q, over) => {
      const b = unheard(q) ?? base(q);
      const a = unheard(q) ?? given.get(q);
      give([
        {
          question: q,
          answer: b?.answer === "unknown" ? "unknown" : "yes",
          ...(b?.side ? { side: b.side } : {}),
          ...(b?.regions ? { regions: b.regions } : {}),
          ...(a?.since ? { since: a.since } : {}),
          ...(a?.happened_on ? { happened_on: a.happened_on } : {}),
          ...(a?.due_on ? { due_on: a.due_on } : {}),
          ...(a?.note ? { note: a.note } : {}),
          ...over,
          // A place that is taken off again was a slip; the core lets it count for a while.
          corrects: "Said more exactly.",
        },
      ]);
    },
  };
}
