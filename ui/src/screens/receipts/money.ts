// Money as it is typed and shown; what it comes to is the server's to say.

/** Hundredths as they are written: 85.00. */
export const money = (cents: number, currency = "") =>
  `${cents < 0 ? "−" : ""}${Math.floor(Math.abs(cents) / 100)}.${String(Math.abs(cents) % 100).padStart(2, "0")}${
    currency && ` ${currency}`
  }`;

/** What was typed, with a point or a comma, in hundredths; nothing where it is no such number. */
export function hundredths(typed: string): number | undefined {
  const m = /^\s*(\d{1,6})(?:[.,](\d{1,2}))?\s*$/.exec(typed);
  return m ? Number(m[1]) * 100 + Number((m[2] ?? "").padEnd(2, "0") || 0) : undefined;
}
