// What to practise: what is next, what was set, and every exercise with the shipped cases.
import { useState } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import type { BenchModule } from "../../core/benchModule";
import { Button, Card } from "../../parts/controls";
import { Choice } from "../../parts/Choice";
import { Fill, Plain, Row, Ruled, Said, Stack } from "../../parts/layout";
import { listed, longDay } from "../../parts/words";
import { upright } from "../../theme";
import { useAssignments, useResults } from "./queries";
import { type Begun, useBegin } from "./visit/begin";
import { type Exercise, exerciseName, exercises, exerciseWhat, levelName } from "./words";

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr);
  gap: 18px;
  align-items: start;
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  me: Schemas["Me"];
  bench: BenchModule;
}

export function Practise({ me, bench }: Props) {
  const results = useResults();
  const begin = useBegin(bench, me);
  const [exercise, setExercise] = useState<Exercise>("search");
  const next = results.data?.next;
  return (
    <Grid>
      <Stack $gap={4}>
        {next && (
          <Card data-next={next.exercise}>
            <h2>Next</h2>
            <Said $lead>{`${exerciseName[next.exercise]}, ${levelName(next.level).toLowerCase()}`}</Said>
            <Said className="quiet">{next.why}</Said>
            <Row>
              <Button
                $kind="main"
                onPress={() =>
                  begin({ exercise: next.exercise as Exercise, level: next.level, coach: "speaks" })
                }
              >
                Practise this
              </Button>
            </Row>
          </Card>
        )}
        <Set me={me} bench={bench} />
      </Stack>
      <Cases
        bench={bench}
        exercise={exercise}
        onExercise={setExercise}
        begin={begin}
        done={results.data?.results ?? []}
      />
    </Grid>
  );
}

interface CasesProps {
  bench: BenchModule;
  exercise: Exercise;
  onExercise: (e: Exercise) => void;
  begin: (b: Begun) => void;
  done: Schemas["PracticeResult"][];
}

/** The shipped cases of an exercise by level, and one that is made. */
function Cases({ bench, exercise, onExercise, begin, done }: CasesProps) {
  const [coach, setCoach] = useState<"speaks" | "silent">("speaks");
  const [level, setLevel] = useState(1);
  const all = bench.ask("cases", {}).cases.filter((c) => exercise !== "search" || c.touching);
  const here = all.filter((c) => c.level === level);
  const best = (title: string) =>
    Math.max(-1, ...done.filter((r) => r.exercise === exercise && r.title === title).map((r) => r.mean ?? 0));
  return (
    <Card data-cases={exercise}>
      <Choice
        label="Exercise"
        quiet
        options={exercises}
        describe={(e) => exerciseName[e] ?? e}
        value={exercise}
        onChoose={onExercise}
      />
      <Said $lead>{exerciseWhat[exercise]}</Said>
      <Row $wrap $gap={4}>
        <Choice label="Level" options={[1, 2, 3]} value={level} onChoose={setLevel} />
        {exercise === "grading" && (
          <Choice
            label="The coach"
            options={["speaks", "silent"] as const}
            value={coach}
            onChoose={setCoach}
          />
        )}
      </Row>
      {exercise === "landmarks" ? (
        <Row $gap={3}>
          <Fill>A new round has other landmarks each time.</Fill>
          <Button $kind="main" onPress={() => begin({ exercise, level, coach })}>
            Begin
          </Button>
        </Row>
      ) : (
        <Plain>
          <Ruled as="li" $cols="minmax(0, 1fr) auto auto" $align="center" $gap={3}>
            <span>
              <b>A new client</b>
              <br />
              <span className="quiet small">Made for you; somebody else each time</span>
            </span>
            <span />
            <Button $kind="main" onPress={() => begin({ exercise, level, coach })}>
              Begin
            </Button>
          </Ruled>
          {here.map((c) => (
            <Ruled
              as="li"
              key={c.id}
              $cols="minmax(0, 1fr) auto auto"
              $align="center"
              $gap={3}
              data-case={c.id}
            >
              <span>
                <b>{c.title}</b>
                <br />
                <span className="quiet small">{`“${c.story}”`}</span>
              </span>
              <span className="quiet small">
                {best(c.title) >= 0 ? `best ${Math.round(100 * best(c.title))}` : ""}
              </span>
              <Button aria-label={`Begin: ${c.title}`} onPress={() => begin({ exercise, case: c.id, coach })}>
                Begin
              </Button>
            </Ruled>
          ))}
        </Plain>
      )}
    </Card>
  );
}

/** What a teacher has set, and how much of it is done. */
function Set({ me, bench }: Props) {
  const set = useAssignments();
  const results = useResults();
  const begin = useBegin(bench, me);
  const go = useNavigate();
  const open = set.data?.items.filter((a) => !a.closed && !a.own) ?? [];
  if (open.length === 0) return null;
  const did = (a: Schemas["Assignment"], item: number) =>
    results.data?.results.find((r) => r.assignment === a.id && r.item === item && r.finished);
  const start = (a: Schemas["Assignment"], item: number) => {
    const x = a.items[item];
    if (!x) return;
    if (a.coach === "exam")
      return void go(
        `/bench/do/${x.exercise}?assignment=${a.id}&item=${item}&exam=yes&level=${x.level ?? 1}`,
      );
    begin({
      exercise: x.exercise,
      coach: a.coach as "speaks" | "silent",
      assignment: a.id,
      item,
      ...(x.case ? { case: x.case } : { level: x.level ?? 1 }),
    });
  };
  return (
    <Card data-assignments={open.length}>
      <h2>Set for you</h2>
      {open.map((a) => (
        <Stack key={a.id} $gap={1} data-assignment={a.id}>
          <Row $gap={2} $wrap>
            <b>{a.title}</b>
            <span className="quiet small">
              {listed(
                a.coach === "exam" && "exam",
                `by ${a.by}`,
                `until ${longDay(new Date(`${a.due_on}T12:00:00Z`), "UTC")}`,
              )}
            </span>
          </Row>
          {a.items.map((x, i) => (
            <Ruled key={i} $cols="minmax(0, 1fr) auto" $align="center" $gap={3}>
              <span>
                {listed(exerciseName[x.exercise], x.level ? levelName(x.level).toLowerCase() : undefined)}
              </span>
              {did(a, i) ? (
                <span className="quiet">{a.coach === "exam" ? "sat" : "done"}</span>
              ) : (
                <Button
                  aria-label={`Begin: ${a.title}, ${exerciseName[x.exercise]}`}
                  onPress={() => start(a, i)}
                >
                  Begin
                </Button>
              )}
            </Ruled>
          ))}
        </Stack>
      ))}
    </Card>
  );
}
