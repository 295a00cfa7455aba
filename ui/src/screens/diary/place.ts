// Where an appointment stands in the grid: by the clock on the wall, so that nine
// o'clock is at one height on every day, whatever clocks do.
import type { Schemas } from "../../api/client";
import { dateFormat } from "../../parts/dates";
import { isoDay } from "../../parts/words";

type Visit = Schemas["Visit"];

/** Minutes since midnight by the practice's clock, and its date there. */
export function onTheWall(iso: string, zone: string): { date: string; minute: number } {
  const at = new Date(iso);
  const clock = dateFormat("en-GB", { timeZone: zone, hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
  const [hour = 0, minute = 0] = clock.format(at).split(":").map(Number);
  return { date: isoDay(at, zone), minute: hour * 60 + minute };
}

export interface Placed {
  visit: Visit;
  minute: number;
  /** Which of the lanes beside each other, and of how many. */
  lane: number;
  lanes: number;
}

/** The appointments of a day; what overlaps stands in lanes beside each other. */
export function placed(visits: Visit[], date: string, zone: string): Placed[] {
  const list = visits
    .map((visit) => ({ visit, ...onTheWall(visit.starts_at, zone), lane: 0, lanes: 1 }))
    .filter((v) => v.date === date)
    .sort((a, b) => a.minute - b.minute);
  const end = (p: Placed) => p.minute + (p.visit.minutes ?? 60);
  let group: Placed[] = [];
  let until = 0;
  const close = () => {
    const lanes = Math.max(0, ...group.map((g) => g.lane)) + 1;
    for (const g of group) g.lanes = lanes;
  };
  for (const p of list) {
    if (p.minute >= until) {
      close();
      group = [];
    }
    const taken = new Set(group.filter((g) => end(g) > p.minute).map((g) => g.lane));
    while (taken.has(p.lane)) p.lane++;
    group.push(p);
    until = Math.max(until, end(p));
  }
  close();
  return list;
}

/** The day so many days on, YYYY-MM-DD. */
export const daysOn = (date: string, n: number) =>
  new Date(Date.parse(`${date}T12:00:00Z`) + n * 86_400_000).toISOString().slice(0, 10);

/** The first day of the week that a date is in; 0 is Sunday. */
export const weekOf = (date: string, starts: number) => {
  const weekday = new Date(`${date}T12:00:00Z`).getUTCDay();
  return daysOn(date, -((weekday - starts + 7) % 7));
};

/** "14:30", or "2:30 pm". */
export function hourOf(minute: number, hours: number): string {
  const h = Math.floor(minute / 60);
  const m = String(minute % 60).padStart(2, "0");
  if (hours === 24) return `${String(h).padStart(2, "0")}:${m}`;
  return `${h % 12 || 12}:${m} ${h < 12 ? "am" : "pm"}`;
}
