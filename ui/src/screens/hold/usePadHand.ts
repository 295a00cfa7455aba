// What the pressure pad does in a hold: contact and letting go by force.
import { useCallback, useMemo, useState } from "react";
import type { Core } from "../../core/core";
import { type PressurePad, usePressurePad, usePressurePadAddress } from "../../core/usePressurePad";
import type { LiveHold } from "./useHold";

/** A press of a paced protocol may end a little early by hand; that is no end of
 * the hold. */
const earlyS = 1.5;
/** The pad's surface, to write the force as a pressure. */
const padCM2 = 4;

export interface PadHand extends PressurePad {
  /** An instrument is configured at all. */
  known: boolean;
  using: boolean;
  toggle: () => void;
}

export function usePadHand(core: Core, live: LiveHold): PadHand {
  const address = usePressurePadAddress();
  const [using, setUsing] = useState(false);
  const { line, summary, hand_on } = live.view;
  const { phase, advice } = line;
  const words = advice.join(" ");
  const said = useMemo(() => ({ phase, advice: words.split(" ").filter(Boolean) }), [phase, words]);
  const last = summary.trace.length ? summary.trace.length : undefined;
  const pad = usePressurePad(core, using ? address : undefined, said, last, {
    onContact: () => {
      if (["ready", "return", "moved-off"].includes(phase)) live.act("contact");
      else if (phase === "paused") live.act("resume");
    },
    onLetGo: () => {
      const endsSoon = phase === "press" && line.reps > 1 && line.part_left_s < earlyS;
      if (hand_on && !endsSoon) live.act("release");
    },
    onForce: (n) => live.act("pressure", Math.round((n * 10) / padCM2)),
  });
  const toggle = useCallback(() => setUsing((was) => !was), []);
  const known = !!address;
  return useMemo(() => ({ ...pad, known, using, toggle }), [pad, known, using, toggle]);
}
