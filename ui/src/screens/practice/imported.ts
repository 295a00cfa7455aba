// What whoever takes a file in says of it. Columns and the way of days are remembered on this
// device for the next file of the kind; no row of a file is.
export interface Said {
  /** Entries that stay out, by number. */
  leave: number[];
  /** A column's name to what it is; empty leaves it out. */
  columns: Record<string, string>;
  day: Day;
}

export const days = { ymd: "2026-12-31", dmy: "31.12.2026", mdy: "12/31/2026" } as const;
export type Day = keyof typeof days;

const place = (kind: string) => `columns of ${kind}`;

export function remember({ kind, columns, day }: Said & { kind: string }) {
  localStorage.setItem(place(kind), JSON.stringify({ columns, day }));
}

export function remembered(kind: string): Pick<Said, "columns" | "day"> {
  try {
    const { columns, day } = JSON.parse(localStorage.getItem(place(kind)) ?? "{}");
    return { columns: columns ?? {}, day: day in days ? day : "ymd" };
  } catch {
    return { columns: {}, day: "ymd" };
  }
}
