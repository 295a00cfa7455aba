// One group of the screening, folded away once it is asked.
import { useState } from "react";
import { styled } from "styled-components";
import { Button as AriaButton } from "react-aria-components";
import type { Schemas } from "../../../api/client";
import { Button, Card, bare } from "../../../parts/controls";
import { Plain } from "../../../parts/layout";
import { Question } from "./Question";
import type { Answers, QuestionID } from "./useAnswers";

const Head = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  h2 {
    flex: 1;
  }
  h2 button {
    ${bare}
  }
  h2 small {
    font: 500 14px var(--text);
    color: var(--ink-soft);
  }
`;

interface Props {
  name: string;
  outcome: string;
  questions: Schemas["Question"][];
  answers: Answers;
  placing?: QuestionID;
  setPlacing: (question: QuestionID | undefined) => void;
}

export function Group({ name, outcome, questions, answers, placing, setPlacing }: Props) {
  const open = questions.filter((q) => answers.missing(q.id));
  const together = open.filter((q) => !answers.singly(q.id));
  const [shut, setShut] = useState<boolean>();
  const hidden = shut ?? open.length === 0;
  return (
    <Card data-group={outcome}>
      <Head>
        <h2>
          <AriaButton aria-expanded={!hidden} onPress={() => setShut(!hidden)}>
            {name}{" "}
            <small>
              {open.length ? `${open.length} to ask` : "asked"} · {hidden ? "show" : "hide"}
            </small>
          </AriaButton>
        </h2>
        {together.length > 0 && (
          <Button
            onPress={() => answers.give(together.map((q) => ({ question: q.id, answer: "no" as const })))}
          >
            {together.length < open.length ? "No to the others" : "No to the rest"}
          </Button>
        )}
      </Head>
      {!hidden && (
        <Plain>
          {questions.map((q) => (
            <Question
              key={q.id}
              q={q}
              answers={answers}
              placing={placing === q.id}
              setPlacing={(on) => setPlacing(on ? q.id : undefined)}
            />
          ))}
        </Plain>
      )}
    </Card>
  );
}
