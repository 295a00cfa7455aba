// A result replayed: its score, a time line with its marks, and what was true.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../../api/client";
import { loadBench } from "../../../core/loadBench";
import { useCore } from "../../../core/useCore";
import { Button, Card, Failed, Waiting } from "../../../parts/controls";
import { Bullets, Fill, Plain, Row, Ruled, Said, Stack } from "../../../parts/layout";
import { clock, listed, plain, sentence } from "../../../parts/words";
import { beginOnScreens } from "../visit/begin";
import { type Exercise, exerciseName, keyName, levelName, percent, ruleOf } from "../words";
import { BenchPage } from "../BenchPage";
import { reviewKey } from "../queries";
import { PainWords } from "../exercise/Reasoning";
import { TimeLine } from "./TimeLine";
import { TrueBody } from "./TrueBody";

type Review = Schemas["PracticeReview"];

export default function ReviewPage({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: reviewKey(id),
    queryFn: () => must(api.GET("/api/bench/results/{id}", { params: { path: { id } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (q.error && !q.data) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Opening the review…</Waiting>;
  return <Shown review={q.data} me={me} />;
}

function Shown({ review, me }: { review: Review; me: Schemas["Me"] }) {
  const [at, setAt] = useState<number>();
  const go = useNavigate();
  const { outcome, exercise, title, level } = review;
  const onScreens = exercise === "grading" || exercise === "visit";
  const anew = async () => {
    if (!onScreens) return go(`/bench/do/${exercise}?from=${review.id}&until=0`);
    const coach = review.coach === "silent" ? "silent" : "speaks";
    go(beginOnScreens(await loadBench(), me, { exercise: exercise as Exercise, coach, again: review.input }));
  };
  const again = (t: number) => go(`/bench/do/${exercise}?from=${review.id}&until=${t}&coach=${review.coach}`);
  return (
    <BenchPage data-review={exercise}>
      <Row $gap={3} $wrap>
        <Fill>
          <h1>{`${exerciseName[exercise]}: ${title}`}</h1>
          <p className="quiet">
            {listed(review.name, levelName(level), `mean ${percent(review.mean)} of 100`)}
          </p>
        </Fill>
        <Link className="stands" to="/bench">
          All exercises
        </Link>
        <Button onPress={() => void anew()}>From the beginning</Button>
      </Row>
      <div className="two">
        <Stack $gap={4}>
          <Card>
            <h2>As it went</h2>
            <TimeLine review={review} at={at} onAt={setAt} />
            <Marks
              marks={outcome.marks ?? []}
              at={at}
              onAt={setAt}
              onAgain={exercise === "visit" ? undefined : again}
            />
          </Card>
          <Truth review={review} />
        </Stack>
        <Stack $gap={4}>
          <Score score={outcome.score} />
          <What review={review} />
        </Stack>
      </div>
    </BenchPage>
  );
}

const Bar = styled.div<{ $share: number }>`
  height: 8px;
  border-radius: 4px;
  background: linear-gradient(
    to right,
    var(--accent) ${(p) => p.$share * 100}%,
    var(--line-soft) ${(p) => p.$share * 100}%
  );
`;

/** Each component of a score, the weakest first. */
function Score({ score }: { score: Record<string, number> }) {
  const keys = Object.keys(score).sort((a, b) => (score[a] ?? 0) - (score[b] ?? 0) || a.localeCompare(b));
  return (
    <Card data-score>
      <h2>Score</h2>
      {keys.map((k) => (
        <Ruled key={k} $cols="minmax(0, 1fr) 110px 34px" $align="center" $gap={3}>
          <span>{keyName(k)}</span>
          <Bar $share={score[k] ?? 0} />
          <b className="number">{percent(score[k])}</b>
        </Ruled>
      ))}
    </Card>
  );
}

interface MarksProps {
  marks: Schemas["LearnerMark"][];
  at?: number;
  onAt: (t: number) => void;
  onAgain?: (t: number) => void;
}

/** What counted, why it matters, and from where it can be done again. */
function Marks({ marks, at, onAt, onAgain }: MarksProps) {
  if (marks.length === 0) return <p className="quiet">Nothing was marked.</p>;
  return (
    <Plain>
      {marks.map((m, i) => {
        const rule = ruleOf(m.rule);
        return (
          <Ruled
            as="li"
            key={i}
            $cols="72px minmax(0, 1fr) auto"
            $gap={3}
            $align="start"
            data-mark-at={m.t}
            aria-current={at === m.t}
          >
            <Button aria-label={`Show ${clock(m.t)}`} onPress={() => onAt(m.t)}>
              {clock(m.t)}
            </Button>
            <span>
              <b>{rule.name}</b>
              <br />
              {m.text}
              <Said className="quiet" $small>
                {rule.why}
              </Said>
            </span>
            {onAgain && <Button onPress={() => onAgain(m.t)}>Again from here</Button>}
          </Ruled>
        );
      })}
    </Plain>
  );
}

/** What was true of the client, on the body and in words. */
function Truth({ review }: { review: Review }) {
  const { core } = useCore();
  const of = review.outcome.truth?.shows?.case;
  if (!of) return null;
  return (
    <Card data-truth={of.id}>
      <h2>What was true</h2>
      <Said $lead>{`“${of.story}”`}</Said>
      <Said>{of.goal}.</Said>
      <Said>{bestWords[of.best] ?? of.best}</Said>
      {core && of.truth.points && of.truth.points.length > 0 && (
        <div className="body">
          <TrueBody core={core} points={of.truth.points} review={review} />
        </div>
      )}
      <Bullets>
        {of.truth.points?.map((p, i) => (
          <li key={i}>
            {listed(
              sentence(plain(p.muscle)),
              p.side,
              responseWords[p.response],
              `tenderness ${p.tenderness} of 4`,
              p.familiar && "the client's own pain",
            )}
          </li>
        ))}
        {of.yes?.map((q) => (
          <li key={q}>{core?.lists.questions.find((x) => x.id === q)?.text ?? plain(q)}</li>
        ))}
      </Bullets>
      {of.pain && <PainWords pain={of.pain as Schemas["PainOf"][]} />}
    </Card>
  );
}

const bestWords: Record<string, string> = {
  treat: "To be treated.",
  nothing: "Nothing to press: the best is to leave it.",
  refer: "To be referred: nobody presses before somebody else has looked.",
};

const responseWords: Record<string, string> = {
  quick: "gives quickly",
  slow: "gives slowly",
  "needs-slack": "gives in slack",
  hyperirritable: "gives only at 4 and below",
  stubborn: "does not give: its source lies elsewhere",
  sham: "no point, ordinary tenderness",
};

/** The engine's list beside the learner's, and what would have told them apart. */
function What({ review }: { review: Review }) {
  const shows = review.outcome.truth?.shows;
  const given = review.input.actions.find((a) => a.action === "name")?.answers;
  if (!shows?.engine?.length && !given) return null;
  return (
    <Card data-engine>
      <h2>From the same findings</h2>
      <Plain>
        {shows?.engine?.map((e) => (
          <Ruled as="li" key={e.muscle + e.side} $cols="minmax(0, 1fr) auto">
            <span>{sentence(listed(plain(e.muscle), e.side))}</span>
            <b>{e.percent} %</b>
          </Ruled>
        ))}
      </Plain>
      {shows?.separates && <Said>{`Would have told them apart best: ${shows.separates}.`}</Said>}
    </Card>
  );
}
