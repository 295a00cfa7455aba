// What changed, in words.
import type { Schemas } from "../../api/client";

const signals: Record<string, string> = {
  improving: "improving",
  plateau: "plateau: trace back, change the protocol, or refer",
  worse: "worse twice: stop this approach, screen again",
  resolved: "low on two visits: space out",
  "too-few": "",
};

const tones: Record<string, "warn" | "stop" | "good"> = {
  plateau: "warn",
  worse: "stop",
  resolved: "good",
  improving: "good",
};

/** A side that is simply fine stands still too, so a range shows no plateau. */
export const rangeSignals = { worse: "worse twice: screen again" };

/** Units that are written; a number of ten, a grade and points go without. */
const written = new Set(["kPa", "mm", "cm²", "in²"]);

/** "−4°", "−11.7 in²", "−2". */
export function withUnit(n: number, unit: string) {
  const sign = n > 0 ? "+" : n < 0 ? "−" : "";
  const amount = `${sign}${Math.abs(Math.round(n * 10) / 10)}`;
  if (unit === "°") return `${amount}°`;
  return written.has(unit) ? `${amount} ${unit}` : amount;
}

export function verdict(
  c: Schemas["Change"] | undefined,
  what: string,
  shown: Record<string, string> = signals,
) {
  if (!c) return { text: "One reading so far: nothing to compare.", d: undefined };
  const size = [
    c.threshold.absolute !== undefined && withUnit(c.threshold.absolute, c.unit).slice(1),
    c.threshold.percent !== undefined && `${c.threshold.percent} %`,
  ]
    .filter(Boolean)
    .join(" or ");
  return {
    text: `${what} ${withUnit(c.delta, c.unit)}: ${c.text}`,
    signal: shown[c.signal ?? ""] || undefined,
    tone: tones[c.signal ?? ""],
    d: c.direction,
    title: `A real change is ${size} (${c.source}).`,
  };
}
