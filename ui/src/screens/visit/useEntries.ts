// What the client entered on an own device: nothing counts before the therapist
// has taken it in.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { useFigure } from "../../body/views";
import { isLocal } from "../../core/localIDs";
import type { LiveVisit } from "../../core/useVisit";
import { mergeStory } from "../story";

export type Entry = Schemas["Submission"];

export function useEntries(visit: LiveVisit) {
  const queries = useQueryClient();
  const take = useTake(visit);
  const [error, setError] = useState<Error>();
  const [left, setLeft] = useState<Entry[]>([]);
  const id = visit.open.visit.id;
  const key = ["entries", id];
  const entries = useQuery({
    queryKey: key,
    initialData: { items: visit.open.entries },
    enabled: !isLocal(id),
    refetchInterval: 4000,
    queryFn: () => must(api.GET("/api/visits/{id}/entries", { params: { path: { id } } })),
  });
  const params = (e: Entry) => ({ path: { id, entry: e.id } });
  /** Tells the record, and shows it at once: what was asked for before does not bring back an entry that is
   * settled, and take it away again. */
  const tell = async (call: () => Promise<unknown>, waits: (before: Entry[]) => Entry[]) => {
    try {
      await call();
      await queries.cancelQueries({ queryKey: key });
      queries.setQueryData<{ items: Entry[] }>(key, (d) => ({ items: waits(d?.items ?? []) }));
      await queries.invalidateQueries({ queryKey: key });
      setError(undefined);
    } catch (x) {
      setError(x as Error);
    }
  };
  const settle = (e: Entry, takeIn: boolean) => {
    if (takeIn) take(e);
    return tell(
      () => must(api.POST("/api/visits/{id}/entries/{entry}/taken", { params: params(e) })),
      (items) => {
        if (!takeIn) setLeft([...left, e]);
        return items.filter((x) => x.id !== e.id);
      },
    );
  };
  const bringBack = (e: Entry) =>
    tell(
      () => must(api.DELETE("/api/visits/{id}/entries/{entry}/taken", { params: params(e) })),
      (items) => {
        setLeft(left.filter((x) => x.id !== e.id));
        return [...items.filter((x) => x.id !== e.id), e];
      },
    );
  return { items: entries.data.items, left, settle, bringBack, error };
}

/** Writes what was entered into the visit's log. */
function useTake({ state, write }: LiveVisit) {
  const { data: figure } = useFigure("front");
  return (e: Entry) => {
    if (e.drawing?.strokes.length && figure)
      write("drawing-painted", { figure: figure.version, strokes: e.drawing.strokes, by: "client" });
    if (e.answers) write("screening-answered", { answers: e.answers.answers, by: "client" });
    if (!e.story) return;
    const { loads, ...told } = e.story;
    write("interview-noted", mergeStory(state.interview ?? {}, told));
    if (loads?.length) write("loads-declared", { loads: [...new Set([...state.loads, ...loads])] });
  };
}
