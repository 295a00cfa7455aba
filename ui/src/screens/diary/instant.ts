// The moment of a day and time by the practice's clock.
import { parseDateTime, toZoned } from "@internationalized/date";

/** As the API takes it; a time that is none throws, and the form says so. */
export function instantOf(date: string, time: string, zone: string): string {
  const [h = "", m = ""] = time.trim().split(":");
  const at = `${date}T${h.padStart(2, "0")}:${m.padStart(2, "0")}`;
  if (!/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/.test(at)) throw new Error("Time: write it as 14:30.");
  return toZoned(parseDateTime(at), zone, "later").toDate().toISOString();
}
