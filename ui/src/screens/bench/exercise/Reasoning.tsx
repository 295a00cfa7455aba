// Reasoning: story, drawing and ranges on demand, then up to three answers with a confidence each.
import { useMemo, useRef, useState } from "react";
import type { Schemas } from "../../../api/client";
import type { Drawing } from "../../../body/drawing";
import { BodyViews } from "../../../body/BodyViews";
import { Painted } from "../../../body/Painted";
import { ZoomedBody } from "../../../body/ZoomedBody";
import { useMainViews } from "../../../body/useMainViews";
import { cellId, useLattice } from "../../../body/lattice";
import type { View } from "../../../body/views";
import { Button, Card } from "../../../parts/controls";
import { Choice } from "../../../parts/Choice";
import { Row, Said, Stack } from "../../../parts/layout";
import { deg, listed, movementName, plain, sentence } from "../../../parts/words";
import { Search as Find } from "../../../parts/Pick";
import { Slide } from "../../../parts/Slide";
import type { ExerciseProps } from "./Exercise";
import { ClientSays, ExerciseRoom, Heading } from "./Side";
import type { ClientTold } from "./useExercise";

type Answer = Schemas["NamedCause"];
type Side = Schemas["Side"];

export function Reasoning({ core, doing, title }: ExerciseProps) {
  const drawn = doing.told.find((t) => t.shows?.pain)?.shows?.pain ?? [];
  const named = doing.actions.some((a) => a.action === "name");
  const main = useMainViews(core, { anywhere: true });
  return (
    <ExerciseRoom $side="440px">
      <div className="pane">
        <BodyViews main={main}>{(v) => <DrawnBody key={v} view={v} pain={drawn} />}</BodyViews>
      </div>
      <div className="side">
        <Heading title={title} doing={doing} can={named} />
        <Card>
          <h2>What you look at</h2>
          <Row $wrap>
            <Button onPress={() => void doing.act({ action: "ask", what: "story" })} isDisabled={named}>
              Story, 60 s
            </Button>
            <Button onPress={() => void doing.act({ action: "ask", what: "drawing" })} isDisabled={named}>
              Drawing, 60 s
            </Button>
          </Row>
          <Measure core={core} doing={doing} title={title} />
          <DoTest core={core} doing={doing} title={title} />
          <Readings told={doing.told} core={core} />
        </Card>
        <ClientSays told={doing.told}>{drawn.length > 0 && <PainWords pain={drawn} />}</ClientSays>
        <Naming core={core} doing={doing} title={title} />
      </div>
    </ExerciseRoom>
  );
}

export function PainWords({ pain }: { pain: Schemas["PainOf"][] }) {
  return (
    <Said className="quiet">
      {pain
        .map((p) => `${listed(plain(p.region), p.side !== "midline" && p.side)} ${p.intensity}`)
        .join("; ")}
    </Said>
  );
}

/** The regions that hurt, as the client painted them. */
function DrawnBody({ view, pain }: { view: View; pain: Schemas["PainOf"][] }) {
  const svg = useRef<SVGSVGElement>(null);
  const { data: lattice } = useLattice(view);
  const drawing = useMemo(() => paintedAs(view, pain, lattice), [view, pain, lattice]);
  return (
    <ZoomedBody
      svg={svg}
      view={view}
      drags
      inside={lattice && <Painted view={view} lattice={lattice} drawing={drawing} />}
      aria-label={`The drawing: ${pain.length} regions`}
    />
  );
}

/** A drawing of regions, as cells of a view. */
export function paintedAs(
  view: View,
  pain: Schemas["PainOf"][],
  lattice: Schemas["Lattice"] | undefined,
): Drawing {
  const out = new Map<string, { kind: "ache"; intensity: number }>();
  for (const c of lattice?.cells ?? []) {
    const region = lattice?.regions[c.g];
    const p = pain.find((x) => x.region === region && x.side === c.s);
    if (p) out.set(cellId(view, c), { kind: "ache", intensity: p.intensity });
  }
  return out;
}

/** A movement that is measured, one at a time. */
export function Measure({ core, doing }: ExerciseProps) {
  const [movement, setMovement] = useState<Schemas["MovementID"]>();
  const sides = core.lists.movements.find((m) => m.movement === movement)?.sides ?? [];
  return (
    <>
      <Find
        label="A range, 45 s"
        none="Which movement"
        value={movement}
        options={core.lists.movements.map((m) => m.movement)}
        describe={movementName}
        onPick={setMovement}
      />
      {movement && (
        <Row $wrap>
          {sides.map((side) => (
            <Button key={side} onPress={() => void doing.act({ action: "test", movement, side })}>
              {side === "midline" ? "Measure" : `Measure ${side}`}
            </Button>
          ))}
        </Row>
      )}
    </>
  );
}

/** A test of the evidence, one at a time. */
function DoTest({ core, doing }: ExerciseProps) {
  const [test, setTest] = useState<Schemas["TestID"]>();
  const of = core.lists.tests.find((t) => t.id === test);
  return (
    <>
      <Find
        label="A test, 60 s"
        none="Which test"
        value={test}
        options={core.lists.tests.map((t) => t.id)}
        describe={(id) => core.lists.tests.find((t) => t.id === id)?.name ?? id}
        onPick={setTest}
      />
      {of && (
        <>
          <Said className="quiet" $small>
            {of.how}
          </Said>
          <Row $wrap>
            {(["left", "right"] as const).map((side) => (
              <Button key={side} onPress={() => void doing.act({ action: "test", test: of.id, side })}>
                {`Test ${side}`}
              </Button>
            ))}
          </Row>
        </>
      )}
    </>
  );
}

/** What was measured, beside what is usual, and what came of tests. */
export function Readings({ told, core }: { told: ClientTold[]; core: ExerciseProps["core"] }) {
  const list = told.flatMap((t) => (t.shows?.movement || t.shows?.test ? [t.shows] : []));
  if (list.length === 0) return null;
  return (
    <Stack $gap={1} data-readings={list.length}>
      {list.map((r, i) => {
        if (r.test)
          return (
            <Said key={i} $small>
              {listed(core.lists.tests.find((t) => t.id === r.test)?.name, r.side)}: <b>{r.result}</b>
            </Said>
          );
        const usual = core.lists.movements.find((m) => m.movement === r.movement)?.reference;
        return (
          <Said key={i} $small>
            {movementName(r.movement ?? "")}
            {r.side !== "midline" && `, ${r.side}`}: <b>{deg(r.deg)}</b>
            <span className="quiet"> of {deg(usual)}</span>
          </Said>
        );
      })}
    </Stack>
  );
}

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
