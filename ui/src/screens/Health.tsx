// The health questions on the client's own device. Few at a time, so that they
// are read; the therapist goes through every yes.
import { useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../api/client";
import { Button, Card, Choice, Trouble, Waiting } from "../parts/controls";

type Answer = Schemas["ScreenedAnswer"]["answer"];
/** Known from the record. */
const notAsked = new Set(["first-visit"]);
const atATime = 7;

const Row = styled.li`
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
  answers: Record<string, Answer>;
  onAnswers: (a: Record<string, Answer>) => void;
}) {
  const q = useQuery({
    queryKey: ["questions"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.POST("/api/calc/questions", { body: {}, headers: { "Mokren-Code": code } })),
  });
  if (q.error) return <Trouble error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Opening…</Waiting>;
  const asked = q.data.questions.filter((x) => !notAsked.has(x.id));
  const groups = Array.from({ length: Math.ceil(asked.length / atATime) }, (_, i) =>
    asked.slice(i * atATime, (i + 1) * atATime),
  );
  const left = asked.filter((x) => !answers[x.id]).length;
  return (
    <>
      <h1 style={{ fontSize: 22 }}>Is there anything we must know?</h1>
      <p className="quiet" aria-live="polite">
        {left === 0
          ? "All answered."
          : `${left} of ${asked.length} questions to go. You may leave some for the talk.`}
      </p>
      {groups.map((g, i) => {
        const open = g.filter((x) => !answers[x.id]);
        return (
          <Card key={g[0]?.id} style={{ padding: "8px 16px 14px" }} data-health={i}>
            <ul style={{ listStyle: "none", margin: 0, padding: 0 }}>
              {g.map((x) => (
                <Row key={x.id}>
                  <span>{x.ask}</span>
                  <Choice
                    quiet
                    label={x.ask}
                    value={answers[x.id]}
                    options={["no", "yes", "unknown"] as Answer[]}
                    describe={(a) => (a === "unknown" ? "not sure" : a)}
                    onChoose={(a) => onAnswers({ ...answers, [x.id]: a })}
                  />
                </Row>
              ))}
            </ul>
            {open.length > 0 && (
              <Button
                onPress={() =>
                  onAnswers({ ...answers, ...Object.fromEntries(open.map((x) => [x.id, "no" as const])) })
                }
              >
                {open.length === g.length ? "None of these" : "No to the rest of these"}
              </Button>
            )}
          </Card>
        );
      })}
    </>
  );
}
