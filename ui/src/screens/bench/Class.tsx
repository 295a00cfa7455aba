// What a teacher sees: who has practised what, the spread of each score, the commonest marks; and what
// is set.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import type { BenchModule } from "../../core/benchModule";
import { Button, Card, Failed, Waiting } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Plain, Row, Ruled, Stack } from "../../parts/layout";
import { Table } from "../../parts/Table";
import { count, day } from "../../parts/words";
import { Assignments } from "./Assignments";
import { ProgressOf } from "./Progress";
import { useResults } from "./queries";
import { SetForm } from "./SetForm";
import { phone } from "../../theme";
import { exerciseName, keyName, percent, ruleOf } from "./words";

const Learners = styled(Table)`
  small {
    color: var(--ink-soft);
  }
  /* On a telephone each learner is a block of their own. */
  ${phone} {
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: 1fr 1fr;
      padding: var(--s2) 0;
      border-top: 1px solid var(--line-soft);
    }
    td {
      border: 0;
    }
    td[data-of]::before {
      content: attr(data-of) " ";
      color: var(--ink-soft);
      font-size: var(--t1);
    }
    td:first-child {
      grid-column: 1 / -1;
    }
  }
`;

const shown = ["landmarks", "search", "grading", "asking", "reasoning"] as const;

export function Class({ bench }: { bench: BenchModule }) {
  const q = useQuery({ queryKey: ["bench-class"], queryFn: () => must(api.GET("/api/bench/class")) });
  const [one, setOne] = useState<Schemas["LearnerSummary"]>();
  if (q.error) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Looking at the class…</Waiting>;
  const { learners, spreads, rules, results } = q.data;
  return (
    <Stack $gap={4}>
      <Card data-learners={learners.length}>
        <Row $gap={3} $wrap>
          <h2>Learners</h2>
          <FileLink href="/api/bench/csv">Results as CSV</FileLink>
        </Row>
        <Learners>
          <thead>
            <tr>
              <th>Learner</th>
              {shown.map((e) => (
                <th key={e}>{exerciseName[e]}</th>
              ))}
              <th>Last</th>
            </tr>
          </thead>
          <tbody>
            {learners.map((l) => (
              <tr key={l.id}>
                <td>
                  <Button
                    aria-pressed={one?.id === l.id}
                    onPress={() => setOne(one?.id === l.id ? undefined : l)}
                  >
                    {l.name}
                  </Button>
                </td>
                {shown.map((e) => (
                  <TrendCell
                    key={e}
                    name={exerciseName[e] ?? e}
                    of={l.trends.find((t) => t.exercise === e)}
                  />
                ))}
                <td data-of="Last">{l.last_at ? day(l.last_at, "UTC") : "–"}</td>
              </tr>
            ))}
          </tbody>
        </Learners>
      </Card>
      {one && <OneLearner key={one.id} of={one} />}
      <div className="two">
        <Spreads spreads={spreads} />
        <Stack $gap={4}>
          <Card>
            <h2>Commonest marks</h2>
            <Plain>
              {rules.map((r) => (
                <Ruled as="li" key={r.rule} $cols="minmax(0, 1fr) auto">
                  <span>{ruleOf(r.rule).name}</span>
                  <span className="quiet">{count(r.n, "result")}</span>
                </Ruled>
              ))}
            </Plain>
          </Card>
          <Assignments learners={learners} results={results} />
          <SetForm bench={bench} />
        </Stack>
      </div>
    </Stack>
  );
}

function TrendCell({ name, of }: { name: string; of?: Schemas["ExerciseTrend"] }) {
  if (!of)
    return (
      <td className="quiet" data-of={name}>
        –
      </td>
    );
  const by = of.trend === undefined ? undefined : Math.round(100 * of.trend);
  return (
    <td data-of={name}>
      <b>{percent(of.last)}</b>
      <small>{by === undefined ? "" : by > 0 ? ` +${by}` : by === 0 ? " ±0" : ` −${-by}`}</small>
    </td>
  );
}

function OneLearner({ of }: { of: Schemas["LearnerSummary"] }) {
  const q = useResults(of.id);
  return (
    <Stack $gap={2} role="region" aria-label={of.name}>
      <h2>{of.name}</h2>
      {q.data && <ProgressOf of={q.data} />}
    </Stack>
  );
}

const Range = styled.svg`
  display: block;
  width: 100%;
  height: 16px;
`;

/** From the least to the most, with the median. */
function Spreads({ spreads }: { spreads: Schemas["Spread"][] }) {
  return (
    <Card data-spreads={spreads.length}>
      <h2>Spread of each score</h2>
      {shown.map((e) => (
        <Stack key={e} $gap={1}>
          <h3>{exerciseName[e]}</h3>
          {spreads
            .filter((s) => s.exercise === e)
            .map((s) => (
              <Ruled key={s.key} $cols="minmax(0, 1fr) 190px 34px" $align="center" $gap={3}>
                <span>{keyName(s.key)}</span>
                <Range viewBox="0 0 190 16" role="img" aria-label={spreadWords(s)}>
                  <path d="M0 8H190" stroke="var(--line-soft)" strokeWidth={4} />
                  <path
                    d={`M${s.least * 190} 8H${s.most * 190}`}
                    stroke="var(--accent)"
                    strokeWidth={4}
                    opacity={0.45}
                  />
                  <circle cx={4 + s.median * 182} cy={8} r={5} fill="var(--accent)" />
                </Range>
                <b>{percent(s.median)}</b>
              </Ruled>
            ))}
        </Stack>
      ))}
    </Card>
  );
}

const spreadWords = (s: Schemas["Spread"]) =>
  `${keyName(s.key)}: from ${percent(s.least)} to ${percent(s.most)}, median ${percent(s.median)}`;
