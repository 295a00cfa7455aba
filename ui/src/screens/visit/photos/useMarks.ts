// The marks of a photograph, kept a moment after the last change.
import { useEffect, useRef, useState } from "react";
import { api, must } from "../../../api/client";
import { type Marks, marksOf } from "./marks";
import type { Photo } from "./take";

const pauseMS = 350;

export function useMarks(photo: Photo, heightCM: number | undefined) {
  const [marks, setMarks] = useState<Marks>(() => marksOf(photo, heightCM));
  const [saved, setSaved] = useState(photo);
  const [error, setError] = useState<Error>();
  const timer = useRef<number>(undefined);
  const revision = useRef(photo.revision);
  const sending = useRef(Promise.resolve());
  useEffect(() => () => clearTimeout(timer.current), []);
  const send = async (body: Marks) => {
    try {
      const params = { path: { id: photo.id }, query: { revision: revision.current } };
      const p = await must(api.PUT("/api/photos/{id}/marks", { params, body }));
      revision.current = p.revision;
      setSaved(p);
      setError(undefined);
    } catch (e) {
      setError(e as Error);
    }
  };
  const keep = (m: Marks) => {
    setMarks(m);
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => {
      // One after the other, or a slow answer makes the next one look stale.
      sending.current = sending.current.then(() => send(m));
    }, pauseMS);
  };
  return { marks, keep, saved, error };
}
