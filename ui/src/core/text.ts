// Text that a record can keep: whole characters, no NUL. Half an emoji comes
// from a keyboard that is interrupted, and would be refused wherever it went.

const half = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

export const wellFormed = (s: string) => s.replace(half, "\ufffd").replaceAll("\0", "");

/** The same for every text in a value. */
export function wellFormedAll<T>(v: T): T {
  if (typeof v === "string") return wellFormed(v) as T;
  if (Array.isArray(v)) return v.map(wellFormedAll) as T;
  if (v && typeof v === "object")
    return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, wellFormedAll(x)])) as T;
  return v;
}
