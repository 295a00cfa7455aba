// Handing in what was entered, part by part.
import { useState } from "react";
import { api, must, Problem, type Schemas } from "../../api/client";
import { useFigure } from "../../body/views";
import { uuidv7 } from "../../core/ids";
import { tidy } from "../story";
import { keepOnDevice, type Kept, kept, type Part } from "./kept";

export function useHandIn(code: string) {
  const [all, setAll] = useState<Kept>(() => kept(code));
  const [sent, setSent] = useState(false);
  const [error, setError] = useState<Error>();
  const { data: figure } = useFigure("back");
  const keep = (next: Kept) => {
    setAll(next);
    keepOnDevice(code, next);
  };
  const change = (what: Part, over: Partial<Kept>) => {
    setSent(false);
    keep({ ...all, ...over, unsent: [...new Set([...all.unsent, what])] });
  };
  const send = async () => {
    setError(undefined);
    let now = all;
    try {
      for (const what of all.unsent) {
        const id = await put(code, what, now, figure?.version ?? "");
        now = {
          ...now,
          ids: { ...now.ids, [what]: id },
          unsent: now.unsent.filter((u) => u !== what),
        };
        keep(now);
      }
      setSent(true);
    } catch (e) {
      setError(e as Error);
    }
  };
  return { all, change, send, sent, error };
}

/** Hands a part in and gives the id that it has there. */
async function put(code: string, what: Part, all: Kept, figure: string): Promise<string> {
  const id = all.ids[what];
  try {
    await putAs(code, what, all, figure, id);
    return id;
  } catch (e) {
    // The therapist has taken the last one in: this is a new one.
    if (!(e instanceof Problem && e.status === 409)) throw e;
    const fresh = uuidv7();
    await putAs(code, what, all, figure, fresh);
    return fresh;
  }
}

function putAs(code: string, what: Part, all: Kept, figure: string, id: string): Promise<unknown> {
  const params = { path: { code, id } };
  if (what === "drawing") {
    const body: Schemas["DrawingPainted"] = { figure, strokes: all.strokes, by: "client" };
    return must(api.PUT("/api/pad/{code}/drawings/{id}", { params, body }));
  }
  if (what === "story") {
    const body = { ...tidy(all.story ?? {}), loads: all.loads };
    return must(api.PUT("/api/pad/{code}/stories/{id}", { params, body }));
  }
  const answers = Object.entries(all.answers).map(
    ([question, answer]) => ({ question, answer }) as Schemas["ScreenedAnswer"],
  );
  return must(api.PUT("/api/pad/{code}/answers/{id}", { params, body: { answers, by: "client" } }));
}
