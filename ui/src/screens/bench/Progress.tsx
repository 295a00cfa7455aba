// How it goes: each exercise over time, and how far one's confidence can be relied on.
import { Link } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Card, Failed, Waiting } from "../../parts/controls";
import { Plain, Ruled, Said, Stack } from "../../parts/layout";
import { count, day, listed } from "../../parts/words";
import { useResults } from "./queries";
import { Calibration } from "./Calibration";
import { Course } from "./Course";
import { exerciseName, levelName, percent } from "./words";

const Line = styled.div`
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 150px;
  gap: var(--s3);
  align-items: center;
  padding: var(--s2) 0;
  border-top: 1px solid var(--line-soft);
`;

export function Progress() {
  const q = useResults();
  if (q.error) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Looking what you practised…</Waiting>;
  return <ProgressOf of={q.data} />;
}

/** The same of somebody else, for a teacher. */
export function ProgressOf({ of }: { of: Schemas["Practised"] }) {
  const { results, trends, calibrated } = of;
  return (
    <div className="two">
      <Card data-trends={trends.length}>
        <h2>Over time</h2>
        {trends.length === 0 && <p className="quiet">Nothing was practised yet.</p>}
        {trends.map((t) => (
          <Line key={t.exercise}>
            <span>
              <b>{exerciseName[t.exercise]}</b>
              <br />
              <span className="quiet small">{count(t.n, "result")}</span>
            </span>
            <Course results={results.filter((r) => r.exercise === t.exercise)} />
            <TrendWords t={t} />
          </Line>
        ))}
        <Latest results={results} />
      </Card>
      <Stack $gap={4}>
        <Calibration of={calibrated} />
      </Stack>
    </div>
  );
}

function TrendWords({ t }: { t: Schemas["ExerciseTrend"] }) {
  const by = t.trend === undefined ? undefined : Math.round(100 * t.trend);
  return (
    <span>
      <b>{percent(t.last)}</b> <span className="quiet small">last</span>
      <br />
      <Said as="span" $small $tone={by !== undefined && by > 0 ? "good" : undefined}>
        {by === undefined
          ? "too few for a trend"
          : by > 0
            ? `+${by} since the start`
            : `${by < 0 ? `−${-by}` : "±0"} since the start`}
      </Said>
    </span>
  );
}

const lately = 8;

function Latest({ results }: { results: Schemas["PracticeResult"][] }) {
  return (
    <>
      <h3>Latest</h3>
      <Plain>
        {results
          .slice(-lately)
          .reverse()
          .map((r) => (
            <Ruled as="li" key={r.id} $cols="70px minmax(0, 1fr) 40px" $align="center" $gap={3}>
              <span className="quiet small">{day(r.began_at, "UTC")}</span>
              {r.mean === undefined ? (
                <span>{listed(exerciseName[r.exercise], "exam, not closed yet")}</span>
              ) : (
                <Link className="stands" to={`/bench/review/${r.id}`}>
                  {listed(`${exerciseName[r.exercise]}: ${r.title}`, levelName(r.level).toLowerCase())}
                </Link>
              )}
              <b>{percent(r.mean)}</b>
            </Ruled>
          ))}
      </Plain>
    </>
  );
}
