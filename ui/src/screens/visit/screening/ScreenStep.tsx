// The screening: asked once, aged by the core, answered by a touch each. What
// it comes to is shown with its reasons and rules over every hold.
import { useState } from "react";
import { Card } from "../../../parts/controls";
import { count } from "../../../parts/words";
import { ConsentCard } from "../Consent";
import { Waiting } from "../OwnDevice";
import type { StepProps } from "../StepProps";
import { Group } from "./Group";
import { groups, outcomeName } from "./outcomes";
import { type QuestionID, useAnswers } from "./useAnswers";

interface Props extends StepProps {
  /** The question whose regions a touch on the body adds to. */
  placing?: QuestionID;
  setPlacing: (question: QuestionID | undefined) => void;
}

export function ScreenStep({ visit, placing, setPlacing }: Props) {
  const { state, core } = visit;
  const { questions } = core.lists;
  const answers = useAnswers(visit);
  const { missing } = state.screening;
  // What is to ask today stands first, decided when the step opens: the order of
  // asking holds while it is being asked.
  const [ordered] = useState(() => [
    ...questions.filter((q) => missing.includes(q.id)),
    ...questions.filter((q) => !missing.includes(q.id)),
  ]);
  return (
    <>
      <Waiting visit={visit} only="answers" />
      <ConsentCard visit={visit} />
      <Card>
        <h2>
          {missing.length
            ? `${count(missing.length, "question")} to ask`
            : outcomeName[state.screening.outcome]}
        </h2>
        <p className="quiet">
          {missing.length ? (
            <>
              Ask, then touch. What is not known counts as yes. You can't start treatment until the first two
              groups are answered.
            </>
          ) : (
            "Asked and answered for today."
          )}
        </p>
      </Card>
      {groups.map((g) => (
        <Group
          key={g.outcome}
          name={g.name}
          outcome={g.outcome}
          questions={ordered.filter((q) => q.outcome === g.outcome)}
          answers={answers}
          placing={placing}
          setPlacing={setPlacing}
        />
      ))}
    </>
  );
}
