// The tones and the voice of a sequence.
import { useEffect, useRef } from "react";
import { play } from "../hold/tones";
import { speak } from "../hold/useRoom";
import { whatOf, whereOf } from "./stepWords";
import type { Running } from "./useRun";

/** A tone for a step, another for the other side, a third for the end; spoken where there is a voice. */
export function useStepTones(
  { at, step, over }: Running,
  loudness: "off" | "soft" | "loud",
  spoken: boolean,
) {
  const last = useRef<{ at: number; side?: string }>({ at: 0 });
  useEffect(() => {
    const before = last.current;
    if (at === before.at && !over) return;
    last.current = { at, side: step?.side };
    const tone = over ? "done" : step?.side === before.side ? "next-rep" : "sink-slightly";
    if (loudness !== "off" && (at || over)) play(tone, loudness);
    if (spoken && step)
      speak(`${whatOf(step)}, ${whereOf(step)}${step.side === "midline" ? "" : `, ${step.side}`}`);
  }, [at, over, step, loudness, spoken]);
}
