// The client's own device, through a short-lived code: what it has brought, and
// the way to make a code.
import { useMemo, useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { byView, fromStrokes } from "../../body/drawing";
import { heightOf } from "../../core/height";
import type { LiveVisit } from "../../core/useVisit";
import { useAskAll } from "../../core/useAsk";
import { Button, Card, ErrorPanel } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { count, one } from "../../parts/words";
import { areaWords, useUnitPreferences } from "../../parts/unitPreferences";
import type { StepProps } from "./StepProps";
import { type Entry, useEntries } from "./useEntries";

const Code = styled.span`
  font: 640 34px/1.3 var(--text);
  letter-spacing: 0.12em;
`;

/** What waits to be taken in. */
export function Waiting({ visit, only }: StepProps & { only?: Entry["kind"] }) {
  const { items, left, settle, bringBack, error } = useEntries(visit);
  const words = useWords(visit, items.concat(left));
  return (
    <>
      {error && <ErrorPanel error={error} />}
      {items
        .filter((e) => !only || e.kind === only)
        .map((e) => (
          <Row key={e.id} className="caution" role="status" data-entry={e.kind}>
            <Fill>{words(e)}</Fill>
            <Button onPress={() => settle(e, false)}>Skip</Button>
            <Button $kind="main" onPress={() => settle(e, true)}>
              Accept
            </Button>
          </Row>
        ))}
      {left.map((e) => (
        <Row key={e.id} className="quiet" role="status">
          <Fill>Left out: {words(e)}</Fill>
          <Button onPress={() => bringBack(e)}>Bring it back</Button>
        </Row>
      ))}
    </>
  );
}

/** An entry in a sentence. */
function useWords({ core, open }: LiveVisit, entries: Entry[]) {
  const written = useUnitPreferences();
  const questions = useMemo(() => new Map(core.lists.questions.map((q) => [q.id, q.ask])), [core]);
  const drawn = entries.flatMap((e) => {
    if (!e.drawing) return [];
    const after = byView(fromStrokes(e.drawing.strokes));
    return [[e.id, { before: {}, after, height_cm: heightOf(open.client) }] as const];
  });
  const areas = useAskAll(core, "drawing", Object.fromEntries(drawn));
  return ({ id, drawing, story, answers }: Entry) => {
    if (drawing) return `The client has drawn ${areaWords(areas?.[id]?.after_cm2 ?? 0, written)}.`;
    if (story) {
      const worst = story.worst === undefined ? "" : `, at its worst ${one(story.worst)} of 10`;
      return `The client has told the story${worst}.${story.complaint ? ` “${story.complaint}”` : ""}`;
    }
    const list = answers?.answers ?? [];
    const said = (a: "yes" | "unknown") =>
      list.filter((x) => x.answer === a).map((x) => questions.get(x.question) ?? x.question);
    const yes = said("yes");
    const unsure = said("unknown");
    return [
      `The client has answered ${count(list.length, "health question")}.`,
      yes.length ? `Yes: ${yes.join(" ")}` : "No yes.",
      ...(unsure.length ? [`Not sure: ${unsure.join(" ")}`] : []),
    ].join(" ");
  };
}

export function OwnDevice({ visit }: StepProps) {
  const [link, setLink] = useState<Schemas["NewLink"]>();
  const [error, setError] = useState<Error>();
  const ask = async () => {
    setError(undefined);
    try {
      setLink(
        await must(api.POST("/api/visits/{id}/link", { params: { path: { id: visit.open.visit.id } } })),
      );
    } catch (x) {
      setError(x as Error);
    }
  };
  const minutes = link ? Math.max(0, Math.round((Date.parse(link.expires_at) - Date.now()) / 60000)) : 0;
  return (
    <Card>
      <h2>On the client's own device</h2>
      <p className="quiet">
        Drawing, story and health questions, beforehand or in the waiting room. Nothing counts before you take
        it in.
      </p>
      {error && <ErrorPanel error={error} />}
      {link ? (
        <p>
          Open <b>{location.host}/draw</b> there and enter
          <br />
          <Code data-code>
            {link.code.slice(0, 4)} {link.code.slice(4)}
          </Code>
          <br />
          <span className="quiet">
            Good for {minutes} minutes. It shows no name, and of the record only the activities to score.
          </span>
        </p>
      ) : (
        <Row>
          <Button onPress={ask}>Create code</Button>
        </Row>
      )}
    </Card>
  );
}
