// What a teacher has set: how many have begun, and closing it.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card } from "../../parts/controls";
import { Row, Ruled, Said } from "../../parts/layout";
import { count, listed } from "../../parts/words";
import { useAssignments } from "./queries";

export function Assignments({ learners, results }: Pick<Schemas["Class"], "learners" | "results">) {
  const set = useAssignments();
  const queries = useQueryClient();
  const [asking, setAsking] = useState<string>();
  const own = set.data?.items.filter((a) => a.own) ?? [];
  const close = async (id: string) => {
    await must(api.POST("/api/bench/assignments/{id}/close", { params: { path: { id } } }));
    setAsking(undefined);
    await queries.invalidateQueries({ queryKey: ["bench-assignments"] });
    await queries.invalidateQueries({ queryKey: ["bench-class"] });
  };
  const students = learners.filter((l) => l.results > 0 || results.some((r) => r.person === l.id)).length;
  return (
    <Card data-own-assignments={own.length}>
      <h2>What you have set</h2>
      {own.length === 0 && <p className="quiet">Nothing yet.</p>}
      {own.map((a) => {
        const did = new Set(results.filter((r) => r.assignment === a.id && r.finished).map((r) => r.person))
          .size;
        return (
          <Ruled key={a.id} $cols="minmax(0, 1fr) auto" $align="center" $gap={3} data-set={a.title}>
            <span>
              <b>{a.title}</b>
              <br />
              <span className="quiet small">
                {listed(
                  a.coach === "exam" ? "exam" : `coach ${a.coach}`,
                  count(a.items.length, "exercise"),
                  `${did} of ${students} have begun`,
                )}
              </span>
            </span>
            {a.closed ? (
              <span className="quiet">closed</span>
            ) : asking === a.id ? (
              <Row>
                <Button $kind="stop" onPress={() => void close(a.id)}>
                  Close for good
                </Button>
                <Button onPress={() => setAsking(undefined)}>Keep open</Button>
              </Row>
            ) : (
              <Button aria-label={`Close: ${a.title}`} onPress={() => setAsking(a.id)}>
                Close
              </Button>
            )}
          </Ruled>
        );
      })}
      <Said className="quiet" $small>
        When an exam is closed, its results and its clients are shown to you and to who sat it.
      </Said>
    </Card>
  );
}
