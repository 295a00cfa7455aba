// The tests worth doing next, any other, and what was done.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { PosePicture } from "../../../body/PosePicture";
import { useAsk } from "../../../core/useAsk";
import { Card, Choice, Search } from "../../../parts/controls";
import { Bullets, Ruled, Said } from "../../../parts/layout";
import { sentence, unbroken } from "../../../parts/words";
import type { StepProps } from "../StepProps";

type Result = Schemas["TestDone"]["result"];

interface Props extends StepProps {
  next: Schemas["NextTest"][];
  /** What the client's answers say of tests. */
  today: Schemas["TestToday"][];
}

export function Tests({ visit, next, today }: Props) {
  const { core, state, write } = visit;
  const all = core.lists.tests;
  const result = (t: string, s: string) => state.tests.find((x) => x.test === t && x.side === s)?.result;
  const done = (test: Schemas["TestID"], side: Schemas["Side"], r: Result) =>
    void write("test-done", { test, side, result: r });
  return (
    <Card>
      <h2>Next best test</h2>
      {next.length === 0 && (
        <p className="quiet">
          Paint the pain and measure a movement first; then the tests worth doing are named here.
        </p>
      )}
      {next.map((n) => (
        <Ruled
          key={n.test + n.side}
          $cols="76px minmax(0, 1fr) auto"
          $gap={3}
          $align="center"
          data-next={`${n.test}:${n.side}`}
        >
          <How core={core} test={n.test} side={n.side} name={n.name} />
          <span>
            <b>{n.text}.</b>
            <br />
            <span className="quiet small">{unbroken(n.how)}</span>
            <Care cautions={n.cautions} />
          </span>
          <Choice
            quiet
            label={`${n.name}, ${n.side}`}
            value={result(n.test, n.side)}
            options={["positive", "negative"] as const}
            onChoose={(r) => done(n.test, n.side, r)}
          />
        </Ruled>
      ))}
      <AnyOther all={all} today={today} result={result} done={done} />
      {state.tests.length > 0 && (
        <Bullets aria-label="Tests done">
          {state.tests.map((t) => (
            <li key={t.test + t.side}>
              {all.find((x) => x.id === t.test)?.name}, {t.side}: {t.result}
            </li>
          ))}
        </Bullets>
      )}
    </Card>
  );
}

/** Which joints the test moves, and which way; empty for one that only presses. */
function How({ core, test, side, name }: HowProps) {
  const d = useAsk(core, "position", { test, side });
  return <Small>{d && <PosePicture d={d} label={`${name}: the movement`} />}</Small>;
}

const Small = styled.span`
  height: 76px;
`;

interface HowProps extends Pick<Schemas["NextTest"], "test" | "side" | "name"> {
  core: StepProps["visit"]["core"];
}

const Care = ({ cautions }: { cautions?: string[] }) =>
  cautions ? <Said $tone="warn">{cautions.join(" ")}</Said> : null;

interface OtherProps {
  all: Schemas["TestEntry"][];
  today: Schemas["TestToday"][];
  result: (test: string, side: string) => Result | undefined;
  done: (test: Schemas["TestID"], side: Schemas["Side"], r: Result) => void;
}

function AnyOther({ all, today, result, done }: OtherProps) {
  const [test, setTest] = useState<Schemas["TestID"]>();
  const chosen = all.find((t) => t.id === test);
  return (
    <>
      <Search
        label="Any other test"
        none="choose a test"
        value={test}
        options={all.map((t) => t.id)}
        describe={(id) => all.find((t) => t.id === id)?.name ?? id}
        onPick={setTest}
      />
      {chosen && <p className="quiet">{chosen.how}</p>}
      {chosen &&
        (["left", "right"] as const).map((s) => {
          const word = today.find((t) => t.test === chosen.id && t.side === s);
          if (word?.forbidden) {
            return (
              <Said key={s} $tone="stop">
                {sentence(s)}: not today. {word.forbidden}
              </Said>
            );
          }
          return (
            <div key={s}>
              <Choice
                label={sentence(s)}
                value={result(chosen.id, s)}
                options={["positive", "negative", "unclear"] as const}
                onChoose={(r) => done(chosen.id, s, r)}
              />
              <Care cautions={word?.cautions} />
            </div>
          );
        })}
    </>
  );
}
