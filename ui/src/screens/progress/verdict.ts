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

export function verdict(
  c: Schemas["Change"] | undefined,
  what: string,
  shown: Record<string, string> = signals,
) {
  if (!c) return { text: "One reading so far: nothing to compare.", d: undefined };
  const amount = Math.abs(Math.round(c.delta * 10) / 10);
  const delta = `${c.delta > 0 ? "+" : c.delta < 0 ? "−" : ""}${amount}${c.unit === "°" ? "°" : ""}`;
  const size = [
    c.threshold.absolute !== undefined && `${c.threshold.absolute}${c.unit === "°" ? "°" : ""}`,
    c.threshold.percent !== undefined && `${c.threshold.percent} %`,
  ]
    .filter(Boolean)
    .join(" or ");
  return {
    text: `${what} ${delta}: ${c.text}`,
    signal: shown[c.signal ?? ""] || undefined,
    tone: tones[c.signal ?? ""],
    d: c.direction,
    title: `A real change is ${size} (${c.source}).`,
  };
}
