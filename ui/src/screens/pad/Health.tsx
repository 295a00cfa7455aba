// The health questions on the client's own device. Few at a time, so that they
// are read; the therapist goes through every yes.
import { useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { api, must } from "../../api/client";
import { Button, Card, Choice, ErrorPanel, Waiting } from "../../parts/controls";
import { Plain } from "../../parts/layout";
import type { Answers } from "./kept";

/** Known from the record. */
const notAsked = new Set<string>(["first-visit"]);
const atATime = 7;

const Asked = styled.li`
  padding: 9px 0;
  border-top: 1px solid var(--line-soft);
  display: grid;
  gap: 6px;
  &:first-child {
    border-top: 0;
  }
`;

export function Health({
  code,
  answers,
  onAnswers,
}: {
  /** The client's code: who has not signed in asks the core with it. */
  code: string;
  answers: Answers;
  onAnswers: (a: Answers) => void;
}) {
  const q = useQuery({
    queryKey: ["questions"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.POST("/api/calc/questions", { body: {}, headers: { "Mokren-Code": code } })),
  });
  if (q.error) return <ErrorPanel error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Opening…</Waiting>;
  const asked = q.data.questions.filter((x) => !notAsked.has(x.id));
  const groups = Array.from({ length: Math.ceil(asked.length / atATime) }, (_, i) =>
    asked.slice(i * atATime, (i + 1) * atATime),
  );
  const left = asked.filter((x) => !answers[x.id]).length;
  return (
    <>
      <h1>Is there anything we must know?</h1>
      <p className="quiet" aria-live="polite">
        {left === 0
          ? "All answered."
          : `${left} of ${asked.length} questions to go. You may leave some for the talk.`}
      </p>
      {groups.map((g, i) => {
        const open = g.filter((x) => !answers[x.id]);
        return (
          <Card key={g[0]?.id} data-health={i}>
            <Plain>
              {g.map((x) => (
                <Asked key={x.id}>
                  <span>{x.ask}</span>
                  <Choice
                    quiet
                    label={x.ask}
                    value={answers[x.id]}
                    options={["no", "yes", "unknown"] as const}
                    describe={(a) => (a === "unknown" ? "not sure" : a)}
                    onChoose={(a) => onAnswers({ ...answers, [x.id]: a })}
                  />
                </Asked>
              ))}
            </Plain>
            {open.length > 0 && (
              <Button
                onPress={() =>
                  onAnswers({ ...answers, ...Object.fromEntries(open.map((x) => [x.id, "no" as const])) })
                }
              >
                {open.length === g.length ? "No to the rest" : "No to the rest of these"}
              </Button>
            )}
          </Card>
        );
      })}
    </>
  );
}
