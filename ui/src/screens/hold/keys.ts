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

/** What the key within reach is called in a phase; what it says is the core's. */
const primary: Partial<Record<Phase, string>> = {
  ready: "Contact",
  return: "Contact",
  "moved-off": "Contact, new spot",
  paused: "Resume",
  "off-spot": "Back on it",
  check: "Yes, still on it",
  rest: "On again now",
  release: "I have let go",
};

export interface Main {
  event: Kind;
  name: string;
}

export const mainKey = ({ pedal, line }: Schemas["HoldView"]): Main | undefined =>
  pedal && { event: pedal, name: primary[line.phase] ?? "Let go" };

export const trendKeys: SignKey[] = [
  { event: "trend", value: "less", name: "Less", key: "," },
  { event: "trend", value: "same", name: "Same", key: "." },
  { event: "trend", value: "more", name: "More", key: "/" },
];

const softens: SignKey = { event: "softening", name: "Softening", key: "f" };
const outBreath: SignKey = { event: "breath", value: "out", name: "Out-breath", key: "b" };
const next: SignKey = { event: "rep", name: "Skip to next", key: "j" };

/** The two keys that a part may have of its own, always in the same place. */
export function partKeys(takes: Kind[]): [SignKey, boolean][] {
  const breath = takes.includes("breath");
  return [[softens, takes.includes("softening")], breath ? [outBreath, true] : [next, takes.includes("rep")]];
}

export const signKeys: SignKey[] = [
  { event: "off-spot", name: "Off the spot", key: "o" },
  { event: "twitch", name: "Twitch", key: "t" },
  { event: "guard", name: "Guarding", key: "g", tone: "warn" },
  { event: "nerve-sign", name: "Nerve sign", key: "n", tone: "warn" },
  { event: "pulse", name: "Pulse", key: "p", tone: "warn" },
  { event: "unwell", name: "Unwell", key: "u", tone: "stop" },
  { event: "skin-reaction", name: "Welts, redness", key: "k", tone: "stop" },
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
    a: { event: "angle-change" },
    h: { event: "pause" },
  };
  const sign = [...trendKeys, softens, outBreath, next, ...signKeys].find((s) => s.key === key.toLowerCase());
  return named[key] ?? (sign && { event: sign.event, value: sign.value });
}
