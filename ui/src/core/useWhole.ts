// What is written whole and changed in parts: the readings of a movement, the activities of a recheck.
// The core answers by message, so the state on screen can be a moment older than what was written; the
// next change goes on from what was written last, or it would undo it.
import { useRef } from "react";
import type { LiveVisit } from "./useVisit";

interface LastWrite<T> {
  id: string;
  value: T;
}

export interface Whole<T> {
  /** As it was written last; what the state has, once it has heard of that. */
  of: (key: string, inState: T) => T;
  /** Notes what was written, by its event. */
  wrote: (key: string, value: T, id: string) => void;
}

export function useWhole<T>({ knows }: Pick<LiveVisit, "knows">): Whole<T> {
  const written = useRef(new Map<string, LastWrite<T>>());
  return {
    of: (key, inState) => {
      const w = written.current.get(key);
      return w && !knows(w.id) ? w.value : inState;
    },
    wrote: (key, value, id) => void written.current.set(key, { id, value }),
  };
}
