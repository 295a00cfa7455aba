// What is said during a hold, by key, pedal or knuckle.
import type { Schemas } from "../../api/client";

type Kind = Schemas["HoldEventKind"];
type Phase = Schemas["Phase"];

export interface SignKey {
  event: Kind;
  value?: string;
  name: string;
  key: string;
  tone?: "warn" | "stop";
}

/** What the pedal, Space or the widest key does in a phase. */
export const primary: Partial<Record<Phase, { event: Kind; name: string }>> = {
  ready: { event: "contact", name: "Contact" },
  return: { event: "contact", name: "Contact" },
  "moved-off": { event: "contact", name: "Contact, new spot" },
  paused: { event: "resume", name: "Resume" },
  "off-spot": { event: "on-spot", name: "Back on it" },
  check: { event: "on-spot", name: "Yes, still on it" },
  settle: { event: "release", name: "Let go" },
  stage: { event: "release", name: "Let go" },
  release: { event: "release", name: "I have let go" },
};

/** Phases in which the hand presses, so that a number means something. */
const pressed: Phase[] = ["settle", "stage", "check", "off-spot", "release"];
export const pressing = (p: Phase) => pressed.includes(p);

/** Phases after which nothing more happens. */
export const over = (p: Phase) => p === "done" || p === "stopped";

export const trendKeys: SignKey[] = [
  { event: "trend", value: "less", name: "Less", key: "," },
  { event: "trend", value: "same", name: "Same", key: "." },
  { event: "trend", value: "more", name: "More", key: "/" },
];

export const signKeys: SignKey[] = [
  { event: "off-spot", name: "Slipped off", key: "o" },
  { event: "twitch", name: "Twitch", key: "t" },
  { event: "guard", name: "Guarding", key: "g", tone: "warn" },
  { event: "nerve-sign", name: "Nerve sign", key: "n", tone: "warn" },
  { event: "pulse", name: "Pulse", key: "p", tone: "warn" },
  { event: "unwell", name: "Unwell", key: "u", tone: "stop" },
  { event: "skin-reaction", name: "Skin welts", key: "k", tone: "stop" },
];

/** What a key says, besides what the pedal does. */
export function saidBy(key: string): { event: Kind; value?: string | number } | undefined {
  if (/^[0-9]$/.test(key)) return { event: "score", value: Number(key) };
  const named: Record<string, { event: Kind; value?: number }> = {
    "=": { event: "score", value: 10 },
    x: { event: "score", value: 10 },
    Escape: { event: "client-stop" },
    Backspace: { event: "undo" },
    r: { event: "release" },
    c: { event: "contact" },
  };
  const sign = [...trendKeys, ...signKeys].find((s) => s.key === key.toLowerCase());
  return named[key] ?? (sign && { event: sign.event, value: sign.value });
}

/** A foot pedal sends what it is set to; all of these are the widest key. */
export const pedal = (key: string) => key === " " || key === "PageDown" || key === "Enter";
