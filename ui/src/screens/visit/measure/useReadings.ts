// The readings of a moment: what is known, and what is set.
import type { Schemas } from "../../../api/client";
import type { LiveVisit } from "../../../core/useVisit";
import { useWhole } from "../../../core/useWhole";
import { activeOf, measured, type MovementSide, saysNothing } from "./reading";

export type Moment = "before" | "after";

/** One reading that is still to be taken. */
export interface Slot extends MovementSide {
  trial: number;
  of: number;
}

export interface Readings {
  moment: Moment;
  of: (m: MovementSide) => Schemas["Range"] | undefined;
  trials: (m: MovementSide) => number[];
  set: (m: MovementSide, over: Partial<Schemas["RangeMeasured"]>) => void;
  setTrial: (m: MovementSide, i: number, v: number | undefined) => void;
  /** What is missing when each side is read so many times. */
  missing: (shown: Schemas["Measurable"][], times: number) => Slot[];
}

const keyOf = ({ movement, side }: MovementSide) => `${movement} ${side}`;

export function useReadings(visit: LiveVisit, moment: Moment, tool: string): Readings {
  const { state, write } = visit;
  const whole = useWhole<number[]>(visit);
  const before = moment === "before";
  const of = ({ movement, side }: MovementSide) =>
    state.ranges.find((r) => r.movement === movement && r.side === side);
  const trials = (m: MovementSide) => {
    const r = of(m);
    const single = before ? r?.before : r?.after;
    const known = (before ? r?.trials : r?.after_trials) ?? (single === undefined ? [] : [single]);
    return whole.of(keyOf(m), known);
  };
  const set: Readings["set"] = ({ movement, side }, over) => {
    const old = of({ movement, side });
    const active = before ? old?.before : old?.after;
    if (over.active_deg !== undefined && over.active_deg === active) return;
    const values = { ...over, ...activeOf(over) };
    const reading: Schemas["RangeMeasured"] = before
      ? measured(old ?? { movement, side }, { tool, ...values })
      : { movement, side, moment, tool: old?.tool ?? tool, ...values };
    if (saysNothing(reading)) return;
    const id = write("range-measured", reading);
    const read = over.trials ?? (over.active_deg === undefined ? undefined : [over.active_deg]);
    if (read) whole.wrote(keyOf({ movement, side }), read, id);
  };
  const setTrial: Readings["setTrial"] = (m, i, v) => {
    const next: (number | undefined)[] = [...trials(m)];
    next[i] = v;
    set(m, { trials: next.filter((x) => x !== undefined) });
  };
  // The close-out repeats as many readings as there were before.
  const wanted = (m: MovementSide, times: number) => (before ? times : (of(m)?.trials?.length ?? 1));
  const missing: Readings["missing"] = (shown, times) =>
    shown.flatMap(({ movement, sides }) =>
      [0, 1, 2].flatMap((trial) =>
        sides
          .map((side) => ({ movement, side, trial, of: wanted({ movement, side }, times) }))
          .filter((s) => trial < s.of && trials(s)[trial] === undefined),
      ),
    );
  return { moment, of, trials, set, setTrial, missing };
}
