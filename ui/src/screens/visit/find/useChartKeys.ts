// Single keys while a point is charted: 0–9 the number (x is 10), and a letter
// for each thing that is said.
import { useLayoutEffect, useRef } from "react";
import type { Chart } from "./chart";

interface Keys {
  set: (over: Partial<Chart>) => void;
  c: Chart;
  asUsual: () => void;
  nowhere: () => void;
  save: () => void;
}

const next = <T>(list: readonly T[], v: T | undefined): T | undefined =>
  v === undefined ? list[0] : list[list.indexOf(v) + 1];

const act: Record<string, (k: Keys) => void> = {
  b: ({ c, set }) => set({ taut_band: next(["yes", "no", "unsure"] as const, c.taut_band) }),
  g: ({ c, set }) => set({ grade: next([0, 1, 2, 3, 4], c.grade) }),
  f: ({ c, set }) => set({ familiar: next(["yes", "partly", "no", "unknown"] as const, c.familiar) }),
  w: ({ c, set }) => set({ twitch: next([true, false], c.twitch) }),
  u: ({ asUsual }) => asUsual(),
  n: ({ nowhere }) => nowhere(),
  s: ({ save }) => save(),
};

export function useChartKeys(keys: Keys) {
  const latest = useRef(keys);
  latest.current = keys;
  // Laid out with what is shown: after painting, a key pressed at once would be lost.
  useLayoutEffect(() => {
    const down = (e: KeyboardEvent) => {
      if (
        e.ctrlKey ||
        e.metaKey ||
        e.altKey ||
        (e.target as Element).closest("input, textarea, [role=listbox]")
      )
        return;
      const k = latest.current;
      const digit = e.key === "x" ? 10 : /^\d$/.test(e.key) ? Number(e.key) : undefined;
      // On the body + − 0 come closer and go back; there a number is typed after
      // the form is reached.
      if (digit !== undefined && !(e.target as Element).closest("svg"))
        k.set({ nprs: digit, given: undefined, scale: undefined });
      else if (act[e.key]) act[e.key]?.(k);
      else return;
      e.preventDefault();
    };
    addEventListener("keydown", down);
    return () => removeEventListener("keydown", down);
  }, []);
}
