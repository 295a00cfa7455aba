// Keys and pedal in a sequence: trodden hands over, held begins the step again.
import { useEffect, useLayoutEffect, useRef } from "react";
import { now } from "../../core/clock";
import type { Running } from "./useRun";

/** Presses so soon after a hand-over are of the step before. */
const settleMS = 1000;
/** Held so long, the pedal begins the step again. */
const heldMS = 700;

export function useStepKeys(pedal: string[], r: Running, onPedal: () => void, pointHere: () => void) {
  const latest = useRef({ r, onPedal, pointHere });
  latest.current = { r, onPedal, pointHere };
  const began = useRef(0);
  useEffect(() => {
    if (r.at) began.current = now();
  }, [r.at]);
  useLayoutEffect(() => {
    let trodden = 0;
    const down = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const { r: run, pointHere: point } = latest.current;
      const acts: Record<string, () => void> = {
        j: run.skip,
        l: run.longer,
        b: run.back,
        o: () => run.swap?.(),
        p: point,
        Escape: () => run.sign("client-stop"),
      };
      const act = pedal.includes(e.key) ? undefined : acts[e.key];
      if (!act && !pedal.includes(e.key)) return;
      e.preventDefault();
      e.stopPropagation();
      if (e.repeat) return;
      if (act) act();
      else trodden = now();
    };
    const up = (e: KeyboardEvent) => {
      if (!pedal.includes(e.key) || !trodden) return;
      const held = now() - trodden >= heldMS;
      trodden = 0;
      const { r: run, onPedal: tread } = latest.current;
      if (held && run.at) run.begin(run.at);
      else if (!run.at || now() - began.current >= settleMS) tread();
    };
    addEventListener("keydown", down, { capture: true });
    addEventListener("keyup", up, { capture: true });
    return () => {
      removeEventListener("keydown", down, { capture: true });
      removeEventListener("keyup", up, { capture: true });
    };
  }, [pedal]);
}
