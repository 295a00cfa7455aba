// One act at a time. The core answers by message, so a second press, or the end of a step's time,
// could act on a step that was ended a moment ago. An act is over when the state on screen has
// heard of what it wrote.
import { useRef } from "react";
import type { LiveVisit } from "../../core/useVisit";

/** What was refused is never heard of: so long it is waited for. */
const heardMS = 3000;

interface Act {
  since: number;
  /** The last event that it wrote. */
  wrote?: string;
}

/** Does an act, which answers with the last event it wrote, if any; false where another is not over. */
export type DoOne = (act: () => Promise<string | undefined>) => boolean;

export function useOneAct({ knows }: Pick<LiveVisit, "knows">): DoOne {
  const latest = useRef<Act>(undefined);
  return (act) => {
    const before = latest.current;
    const heard = !before || (before.wrote !== undefined && knows(before.wrote));
    if (!heard && performance.now() - before.since < heardMS) return false;
    const mine: Act = { since: performance.now() };
    latest.current = mine;
    void act().then((wrote) => {
      if (wrote) mine.wrote = wrote;
      else if (latest.current === mine) latest.current = undefined;
    });
    return true;
  };
}
