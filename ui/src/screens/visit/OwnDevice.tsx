// What the client enters on an own device, through a short-lived code: nothing
// counts before the therapist has taken it in.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { byView, fromStrokes } from "../../body/drawing";
import { useFigure } from "../../body/BodySvg";
import { Button, Card, Trouble } from "../../parts/controls";
import { one } from "../../parts/words";
import { mergeStory } from "../StoryFields";
import type { StepProps } from "./Visit";

type Entry = Schemas["Entry"];

function useEntries({ visit }: StepProps) {
  const { core, open, state, write } = visit;
  const queries = useQueryClient();
  const { data: figure } = useFigure("front");
  const [error, setError] = useState<Error>();
  const [left, setLeft] = useState<Entry[]>([]);
  const id = open.visit.id;
  const entries = useQuery({
    queryKey: ["entries", id],
    initialData: { items: open.entries },
    refetchInterval: 4000,
    queryFn: () => must(api.GET("/api/visits/{id}/entries", { params: { path: { id } } })),
  });
  const take = (e: Entry) => {
    if (e.drawing?.strokes.length)
      write("drawing-painted", { figure: figure?.version, strokes: e.drawing.strokes, by: "client" });
    if (e.answers) write("screening-answered", { answers: e.answers.answers, by: "client" });
    if (e.story) {
      const { loads, ...told } = e.story;
      write("interview-noted", mergeStory(state.interview ?? {}, told));
      if (loads?.length) write("loads-declared", { loads: [...new Set([...state.loads, ...loads])] });
    }
  };
  const settle = async (e: Entry, in_: boolean) => {
    try {
      if (in_) take(e);
      await must(
        api.POST("/api/visits/{id}/entries/{entry}/taken", { params: { path: { id, entry: e.id } } }),
      );
      if (!in_) setLeft([...left, e]);
      await queries.invalidateQueries({ queryKey: ["entries", id] });
      setError(undefined);
    } catch (x) {
      setError(x as Error);
    }
  };
  const bringBack = async (e: Entry) => {
    try {
      await must(
        api.DELETE("/api/visits/{id}/entries/{entry}/taken", { params: { path: { id, entry: e.id } } }),
      );
      setLeft(left.filter((x) => x.id !== e.id));
      await queries.invalidateQueries({ queryKey: ["entries", id] });
    } catch (x) {
      setError(x as Error);
    }
  };
  const questions = useMemo(() => new Map(core.questions().map((q) => [q.id, q])), [core]);
  const words = (e: Entry) => {
    if (e.drawing) {
      const area = core.drawing({
        before: {},
        after: byView(fromStrokes(e.drawing.strokes)),
        height_cm: open.client.height_cm ?? 170,
      }).after_cm2;
      return `The client has drawn ${one(area)} cm².`;
    }
    if (e.story)
      return `The client has told the story${e.story.worst === undefined ? "" : `, at its worst ${one(e.story.worst)} of 10`}.${e.story.complaint ? ` “${e.story.complaint}”` : ""}`;
    const answers = e.answers?.answers ?? [];
    const said = (a: "yes" | "unknown") =>
      answers.filter((x) => x.answer === a).map((x) => questions.get(x.question)?.ask ?? x.question);
    const yes = said("yes"),
      unsure = said("unknown");
    return `The client has answered ${answers.length} health question${answers.length === 1 ? "" : "s"}. ${yes.length ? `Yes: ${yes.join(" ")}` : "No yes."}${unsure.length ? ` Not sure: ${unsure.join(" ")}` : ""}`;
  };
  return { items: entries.data.items, left, settle, bringBack, words, error };
}

/** What waits to be taken in. */
export function Waiting({ visit, only }: StepProps & { only?: Entry["kind"] }) {
  const { items, left, settle, bringBack, words, error } = useEntries({ visit });
  return (
    <>
      {error && <Trouble error={error} />}
      {items
        .filter((e) => !only || e.kind === only)
        .map((e) => (
          <div
            key={e.id}
            className="caution"
            role="status"
            data-entry={e.kind}
            style={{ display: "flex", gap: 10, alignItems: "center", marginTop: 8 }}
          >
            <span style={{ flex: 1, overflowWrap: "anywhere" }}>{words(e)}</span>
            <Button onPress={() => settle(e, false)}>Leave it out</Button>
            <Button $kind="main" onPress={() => settle(e, true)}>
              Take it in
            </Button>
          </div>
        ))}
      {left.map((e) => (
        <p
          key={e.id}
          className="quiet"
          role="status"
          style={{ display: "flex", gap: 10, alignItems: "center", marginTop: 8 }}
        >
          <span style={{ flex: 1 }}>Left out: {words(e)}</span>
          <Button onPress={() => bringBack(e)}>Bring it back</Button>
        </p>
      ))}
    </>
  );
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
      <p className="quiet" style={{ marginTop: 4 }}>
        Drawing, story and health questions, beforehand or in the waiting room. Nothing counts before you take
        it in.
      </p>
      {error && <Trouble error={error} />}
      {link ? (
        <p style={{ marginTop: 8 }}>
          Open <b>{location.host}/draw</b> there and enter
          <br />
          <span data-code style={{ font: "640 34px/1.3 var(--text)", letterSpacing: "0.12em" }}>
            {link.code.slice(0, 4)} {link.code.slice(4)}
          </span>
          <br />
          <span className="quiet">
            Good for {minutes} minutes. It shows no name, and of the record only the activities to score.
          </span>
        </p>
      ) : (
        <Button style={{ marginTop: 8 }} onPress={ask}>
          Make a code
        </Button>
      )}
    </Card>
  );
}
