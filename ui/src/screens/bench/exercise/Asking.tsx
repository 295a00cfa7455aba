// Asking: each question of the screening in an open or in a leading form.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Card } from "../../../parts/controls";
import { Said, Stack } from "../../../parts/layout";
import { upright } from "../../../theme";
import type { ExerciseProps } from "./props";
import { ClientSays, Heading } from "./Side";

const Room = styled.div`
  max-width: 1180px;
  margin: 0 auto;
  height: 100%;
  padding: var(--s3) 22px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: var(--s4);
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
    .first {
      order: -1;
    }
  }
  .all {
    overflow: auto;
    min-height: 0;
  }
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(40px, auto) auto auto;
  gap: var(--s2);
  align-items: center;
  padding: var(--s1) 0;
  border-top: 1px solid var(--line-soft);
  .answer {
    font-weight: 620;
  }
`;

export function Asking({ core, doing, title }: ExerciseProps) {
  const asked = doing.actions.filter((a) => a.action === "ask");
  return (
    <Room>
      <Card className="all" data-questions>
        <h2>What do you ask?</h2>
        <AskedQuestions core={core} doing={doing} title={title} />
      </Card>
      <Stack $gap={3} className="first">
        <Heading title={title} doing={doing} can={asked.length > 0} />
        <ClientSays told={doing.told} />
        <Card>
          <h2>So far</h2>
          <Said>{`${asked.length} asked, ${asked.filter((a) => a.form === "leading").length} of them leading.`}</Said>
          <Said className="quiet" $small>
            An open question takes 20 s and is answered truly. A leading one takes 10 s, and who wants to
            please agrees with it.
          </Said>
        </Card>
      </Stack>
    </Room>
  );
}

/** Every question with its two forms, and what was answered last. */
export function AskedQuestions({ core, doing }: ExerciseProps) {
  const ask = (question: Schemas["Question"]["id"], form: "open" | "leading") =>
    void doing.act({ action: "ask", question, form });
  const answers = new Map<string, string>();
  for (const a of doing.actions) {
    const said = doing.told.find((t) => t.t === a.t && t.says);
    if (a.question && said?.says) answers.set(a.question, said.says);
  }
  return (
    <>
      {core.lists.questions.map((q) => (
        <Line key={q.id} data-question={q.id}>
          <span>{q.ask}</span>
          <span className="answer">{answers.get(q.id) ?? ""}</span>
          <Button aria-label={`Ask openly: ${q.ask}`} onPress={() => ask(q.id, "open")}>
            Open
          </Button>
          <Button aria-label={`Ask leadingly: ${q.ask}`} onPress={() => ask(q.id, "leading")}>
            Leading
          </Button>
        </Line>
      ))}
    </>
  );
}
