// The session as it stands, and the touches that change it.
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";
import { now } from "../../../core/clock";
import { useAskVisit } from "../../../core/useAsk";
import { useWhole } from "../../../core/useWhole";
import type { LiveVisit } from "../../../core/useVisit";

type Made = Schemas["PlanMade"];

/** The plan flows anew twice a minute. */
const everyMS = 30_000;

function useNow(): number {
  const [ms, setMS] = useState(now);
  useEffect(() => {
    const timer = setInterval(() => setMS(now()), everyMS);
    return () => clearInterval(timer);
  }, []);
  return ms;
}

const usualMinutes = 45;

export function usePlan(visit: LiveVisit) {
  const { open, state, write } = visit;
  const whole = useWhole<Made>(visit);
  const ms = useNow();
  // Only minutes that are still being chosen stand apart from the record.
  const [minutes, setMinutes] = useState<number>();
  const wanted: Made | undefined =
    !state.plan || (minutes !== undefined && minutes !== state.plan.minutes)
      ? { ...state.plan, minutes: minutes ?? state.plan?.minutes ?? usualMinutes }
      : undefined;
  const at = ms + (open.context.clock_ms ?? 0);
  const plan = useAskVisit(visit, "visit-plan", { now_ms: at, ...(wanted ? { wanted } : {}) });
  const made: Made = wanted ?? (state.plan as Made);
  if (!plan) return undefined;
  const order = plan.steps.flatMap((s) => (s.point ? [s.point] : []));
  const change = (over: Partial<Made>) => {
    const all = { ...whole.of("plan", made), ...over };
    whole.wrote("plan", all, write("plan-made", all));
  };
  return {
    plan,
    made,
    minutes: made.minutes,
    setMinutes,
    setBlocks: (blocks: Schemas["PlanBlocks"]) => change({ blocks }),
    accept: () => change({}),
    /** Back to the best order there is. */
    best: () => change({ order: [] }),
    /** Moves a point in the order. */
    move: (point: string, by: 1 | -1) => change({ order: moved(order, point, by) }),
    drop: (point: string) =>
      change({
        order: made.order?.filter((p) => p !== point),
        must: made.must?.filter((p) => p !== point),
        dropped: [...(made.dropped ?? []), point],
      }),
    add: (point: string) =>
      change({
        order: made.order?.length ? [...made.order, point] : [],
        must: [...(made.must ?? []), point],
        dropped: made.dropped?.filter((p) => p !== point),
      }),
    lock: (point: string) =>
      change({
        must: made.must?.includes(point)
          ? made.must.filter((p) => p !== point)
          : [...(made.must ?? []), point],
      }),
  };
}

function moved(order: string[], point: string, by: 1 | -1): string[] {
  const at = order.indexOf(point);
  const to = at + by;
  if (at < 0 || to < 0 || to >= order.length) return order;
  const out = [...order];
  out.splice(at, 1);
  out.splice(to, 0, point);
  return out;
}

export type SessionPlan = NonNullable<ReturnType<typeof usePlan>>;
