// One reading of a movement on one side.
import type { Schemas } from "../../../api/client";
import type { PosturePlace } from "../posture/lines";

export interface MovementSide {
  movement: Schemas["MovementID"];
  side: Schemas["Side"];
}

/** The reading whose place a touch on the body says: where it is felt. */
export type Feeling = MovementSide;

/** What is read now, and what the instrument shows meanwhile. */
export interface Measuring extends MovementSide {
  tool: string;
  live?: number;
}

export interface Placing {
  measuring?: Measuring;
  setMeasuring: (m: Measuring) => void;
  feeling?: Feeling;
  setFeeling: (f: Feeling | undefined) => void;
  /** The posture measure that is open. */
  posture?: PosturePlace;
  setPosture: (p: PosturePlace | undefined) => void;
}

type Known = MovementSide & Partial<Schemas["Range"]>;
type Over = Partial<Schemas["RangeMeasured"]>;

/** A reading before treatment with some of its values set anew; what it kept
 * stays. */
export function measured(old: Known, over: Over): Schemas["RangeMeasured"] {
  return {
    movement: old.movement,
    side: old.side,
    moment: "before",
    tool: old.tool,
    ...(old.trials ? { trials: old.trials } : { active_deg: old.before }),
    passive_deg: old.passive,
    pain_nprs: old.before_pain,
    felt: old.felt,
    felt_region: old.felt_region,
    end_feel: old.end_feel,
    ...over,
  };
}

/** One number is a reading; of several the core takes the mean. */
export function activeOf(over: Over): Over {
  if (over.trials && over.trials.length > 1) return { trials: over.trials, active_deg: undefined };
  if (over.trials) return { trials: undefined, active_deg: over.trials[0] };
  return over.active_deg === undefined ? {} : { trials: undefined };
}

/** Whether a reading says anything. */
export function saysNothing({
  movement: _m,
  side: _s,
  moment: _t,
  tool: _o,
  ...values
}: Schemas["RangeMeasured"]) {
  return Object.values(values).every((v) => v === undefined);
}
