// Whether somebody attends a hold: a key, a pad, or the page itself in sight. While it is
// in sight the page writes that down every 10 s; who comes back a minute later or more is
// asked where the hold ended.
import { useEffect, useState } from "react";
import { every, now } from "./clock";

const everyMS = 10_000;
const aloneMS = 60_000;
const place = (hold: string) => `mokren.attended.${hold}`;

function kept(hold: string): number | undefined {
  try {
    const ms = localStorage.getItem(place(hold));
    return ms === null ? undefined : Number(ms);
  } catch {
    return undefined;
  }
}

let attendedAt = Number.NEGATIVE_INFINITY;

/** Whether a hold was attended within the last minute, in this window. */
export const attendedLately = () => now() - attendedAt < aloneMS;

function keep(hold: string, ms: number) {
  attendedAt = now();
  try {
    localStorage.setItem(place(hold), String(Math.round(ms)));
  } catch {
    // a device that keeps nothing knows the last key only
  }
}

export function forgetAttended(hold: string) {
  try {
    localStorage.removeItem(place(hold));
  } catch {
    // nothing was kept
  }
}

interface Watched {
  hold: string;
  /** Whether a hand is thought to be on, and whether it was when nobody attended any more. */
  on: boolean;
  wasOn: boolean;
  /** ms since the hold began, and until its last key. */
  elapsed: () => number;
  lastKey: () => number;
}

/** Since when nobody has attended, ms from the start; settled by calling the answer. */
export function useAttended({
  hold,
  on,
  wasOn,
  elapsed,
  lastKey,
}: Watched): [number | undefined, () => void] {
  const [alone, setAlone] = useState<number>();
  const asking = alone !== undefined;
  useEffect(() => {
    if (!(on || wasOn) || asking) return;
    const look = () => {
      const here = kept(hold);
      const sign = Math.max(lastKey(), here ?? 0);
      // A device that has never shown the hold cannot know who attends it elsewhere.
      if (here !== undefined && elapsed() - sign > aloneMS) setAlone(sign);
      else if (on) keep(hold, elapsed());
    };
    const inSight = () => document.visibilityState === "visible" && look();
    inSight();
    const stop = every(everyMS, inSight);
    // It was in sight until it went, too.
    document.addEventListener("visibilitychange", look);
    return () => {
      stop();
      document.removeEventListener("visibilitychange", look);
    };
  }, [hold, on, wasOn, asking, elapsed, lastKey]);
  return [
    alone,
    () => {
      keep(hold, elapsed());
      setAlone(undefined);
    },
  ];
}
