// What comes after a hold: the flush runs, and then another angle, a satellite in
// the referral, the next of the plan, or the client turns.
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import type { LiveVisit } from "../../core/useVisit";
import { pointName } from "../visit/pointWords";

type Point = Schemas["Point"];

export interface After {
  point: Point;
  name: string;
  why: string;
}

export interface Between {
  next: After[];
  /** What must not be pressed again today, and why. */
  closed: After[];
}

export function useBetween({ core, state, open }: LiveVisit, hold: Schemas["Hold"], ended: boolean): Between {
  return useMemo(() => {
    if (!ended) return { next: [], closed: [] };
    const named = (point: Point, why: string): After => ({
      point,
      why,
      name: pointName(core, point),
    });
    const holdsAt = (p: Point) =>
      state.holds.filter((h) => h.point === p.point && h.status !== "aside").length;
    const shut = (p: Point) => p.closed ?? p.blocked ?? "";
    const free = (p: Point) => !shut(p);
    const here = state.points.find((p) => p.point === hold.point);
    const work = core.work({ open, state }, []).points;
    const satellites = state.points.filter(
      (p) =>
        p.point !== hold.point &&
        work.some((w) => w.point === p.point && w.role === "satellite" && w.of === hold.point),
    );
    const order = state.plan?.order ?? [];
    const planned = state.points
      .filter((p) => p.point !== hold.point && holdsAt(p) === 0)
      .sort((a, b) => place(order, a.point) - place(order, b.point));
    // What made the client, or a sign, end it is not offered again at once.
    const stopped = hold.summary.outcome === "stopped";
    const next = [
      ...(here && free(here) && !stopped ? [named(here, "Another angle, once more here.")] : []),
      ...satellites.filter(free).map((p) => named(p, "A satellite, inside the referral of this point.")),
      ...planned
        .filter((p) => free(p) && !satellites.includes(p))
        .slice(0, 2)
        .map((p) => named(p, order.includes(p.point) ? "Next in the plan." : "Charted, not pressed yet.")),
    ];
    const closed = state.points.filter((p) => shut(p)).map((p) => named(p, shut(p)));
    return { next, closed };
  }, [core, state, open, hold.point, hold.summary.outcome, ended]);
}

const place = (order: string[], id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
