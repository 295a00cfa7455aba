// The search with busy hands: a pedal (it acts as Page Down and Page Up) or keys.
import { useLayoutEffect, useRef } from "react";

interface Acts {
  forth: () => void;
  back: () => void;
  found: () => void;
  nothing: () => void;
  away: () => void;
}

const keys: Record<string, keyof Acts> = {
  PageDown: "forth",
  PageUp: "back",
  c: "found",
  m: "nothing",
  r: "away",
};

export function useSearchKeys(acts: Acts) {
  const latest = useRef(acts);
  latest.current = acts;
  // Laid out with what is shown: after painting, a key pressed at once would be lost.
  useLayoutEffect(() => {
    const down = (e: KeyboardEvent) => {
      const act = keys[e.key];
      if (!act || e.ctrlKey || e.metaKey || e.altKey) return;
      if ((e.target as Element).closest("input, textarea, [role=listbox]")) return;
      e.preventDefault();
      latest.current[act]();
    };
    addEventListener("keydown", down);
    return () => removeEventListener("keydown", down);
  }, []);
}
