// The visits of a course on one axis of time.
import type { Schemas } from "../../api/client";
import { dateFormat } from "../../parts/dates";

type History = Schemas["History"];

/** A visit at which something was read. */
export interface Moment {
  visit: string;
  date: string;
}

/** All visits of a course, oldest first. */
export function momentsOf(h: History): Moment[] {
  const at = new Map<string, string>();
  for (const list of [h.points, h.ranges, h.scores]) {
    for (const x of list) for (const v of x.visits) at.set(v.visit, v.date);
  }
  for (const t of h.treated) at.set(t.visit, t.date);
  return [...at]
    .map(([visit, date]) => ({ visit, date }))
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
}

const dayOf = (date: string) => Date.parse(`${date}T00:00:00Z`) / 86_400_000;

/** Where a date lies between the first and the last, 0 to 1. */
export function along(moments: Moment[]) {
  const first = dayOf(moments[0]?.date ?? "2000-01-01");
  const last = dayOf(moments.at(-1)?.date ?? "2000-01-01");
  return (date: string) => (last > first ? (dayOf(date) - first) / (last - first) : 0.5);
}

/** What a point was when it was read last, at or before a date. */
export const upTo = <T extends { date: string }>(list: T[], date: string) =>
  list.findLast((v) => v.date <= date);

const format = (options: Intl.DateTimeFormatOptions) => (date: string) =>
  dateFormat("en-GB", { ...options, timeZone: "UTC" }).format(midnight(date));
const midnight = (date: string) => new Date(`${date}T00:00:00Z`);
export const longDate = format({ day: "numeric", month: "long", year: "numeric" });
const ofWeek = format({ weekday: "short", day: "numeric", month: "long" });
/** "Fri 4 December". */
export const weekDate = (date: string) => ofWeek(date).replace(",", "");
const short = format({ day: "numeric", month: "short" });
const dated = format({ day: "numeric", month: "short", year: "numeric" });
/** The year is said where it is not this one. */
export const shortDate = (date: string) =>
  (date.startsWith(`${new Date().getFullYear()}-`) ? short : dated)(date);
