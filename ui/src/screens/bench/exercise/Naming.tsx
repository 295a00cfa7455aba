// What it is: up to three answers, each with how sure one is.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Choice } from "../../../parts/Choice";
import { Button, Card } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { Search as Find } from "../../../parts/Pick";
import { Slide } from "../../../parts/Slide";
import { listed, plain, sentence } from "../../../parts/words";
import type { ExerciseProps } from "./props";

type Answer = Schemas["NamedCause"];
type Side = Schemas["Side"];

const most = 3;

/** Up to three answers, each with how sure one is. */
export function Naming({ core, doing }: ExerciseProps) {
  const [list, setList] = useState<Answer[]>([]);
  const given = doing.actions.find((a) => a.action === "name");
  const set = (i: number, a: Answer) => setList(list.map((x, n) => (n === i ? a : x)));
  if (given) {
    return (
      <Card>
        <h2>Your answers</h2>
        {given.answers?.map((a, i) => (
          <Said key={i}>
            {answerWords(a)}: {a.percent} %
          </Said>
        ))}
      </Card>
    );
  }
  return (
    <Card data-naming>
      <h2>What it is</h2>
      {list.map((a, i) => (
        <OneAnswer
          key={i}
          core={core}
          answer={a}
          onChange={(x) => set(i, x)}
          onRemove={() => setList(list.filter((_, n) => n !== i))}
        />
      ))}
      {list.length < most && (
        <Row $wrap>
          <Find
            label={list.length ? "Or a muscle" : "A muscle"}
            none="By name"
            value={undefined}
            options={core.lists.muscles.map((m) => m.id)}
            describe={(id) => sentence(plain(id))}
            onPick={(muscle) =>
              muscle && setList([...list, { is: "muscle", muscle, side: "right" as Side, percent: 50 }])
            }
          />
          <Button onPress={() => setList([...list, { is: "nothing", percent: 50 }])}>Nothing to press</Button>
          <Button onPress={() => setList([...list, { is: "refer", percent: 50 }])}>Refer</Button>
        </Row>
      )}
      <Button
        $kind="main"
        isDisabled={list.length === 0}
        onPress={() => void doing.act({ action: "name", answers: list })}
      >
        Say so
      </Button>
    </Card>
  );
}

const answerWords = (a: Pick<Answer, "is" | "muscle" | "side">) =>
  a.is === "muscle"
    ? sentence(listed(plain(a.muscle ?? ""), a.side))
    : a.is === "nothing"
      ? "Nothing to press"
      : "Refer";

interface OneProps {
  core: ExerciseProps["core"];
  answer: Answer;
  onChange: (a: Answer) => void;
  onRemove: () => void;
}

function OneAnswer({ answer, onChange, onRemove }: OneProps) {
  return (
    <Stack $gap={1}>
      <Row $gap={2}>
        <b>{answerWords({ ...answer, side: undefined })}</b>
        <Button aria-label={`Remove ${answerWords(answer)}`} onPress={onRemove}>
          Remove
        </Button>
      </Row>
      {answer.is === "muscle" && (
        <Choice
          label={`Side of ${answerWords({ ...answer, side: undefined })}`}
          quiet
          options={["left", "right"] as const}
          value={answer.side as "left" | "right"}
          onChoose={(side) => onChange({ ...answer, side })}
        />
      )}
      <Slide
        label="How sure"
        value={answer.percent}
        describe={(v) => `${v} %`}
        onSlide={(percent) => onChange({ ...answer, percent })}
      />
    </Stack>
  );
}
