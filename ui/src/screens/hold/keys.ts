// What is said during a hold, by key, pedal or knuckle.
import type { Schemas } from "../../api/client";

type Kind = Schemas["HoldEventKind"];
type Phase = Schemas["Phase"];
type Line = Schemas["Line"];

export interface SignKey {
  event: Kind;
  value?: string;
  name: string;
  key: string;
  tone?: "warn" | "stop";
}

type Main = { event: Kind; name: string };

/** What the pedal, Space or the widest key does in a phase. */
const primary: Partial<Record<Phase, Main>> = {
  ready: { event: "contact", name: "Contact" },
  return: { event: "contact", name: "Contact" },
  "moved-off": { event: "contact", name: "Contact, new spot" },
  paused: { event: "resume", name: "Resume" },
  "off-spot": { event: "on-spot", name: "Back on it" },
  check: { event: "on-spot", name: "Yes, still on it" },
  rest: { event: "rep", name: "On again now" },
  release: { event: "release", name: "I have let go" },
};

/** Parts in which the client's number means something. */
const parts: Phase[] = [
  "settle",
  "stage",
  "press",
  "rest",
  "ramp",
  "test",
  "slacken",
  "still",
  "sink",
  "move",
  "push",
  "lengthen",
  "stroke",
  "broad",
  "narrow",
];
const inPart = (p: Phase) => parts.includes(p);

export const mainKey = (p: Phase): Main | undefined =>
  primary[p] ?? (inPart(p) ? { event: "release", name: "Let go" } : undefined);

/** Whether a number is taken: under pressure, in a rest, or where one is asked. */
export const takesNumber = ({ phase, ask }: Line) =>
  inPart(phase) || phase === "check" || phase === "off-spot" || phase === "release" || !!ask;

/** Whether the hand is still on, so that leaving the screen lets go. */
export const handOn = (p: Phase) =>
  (inPart(p) && p !== "rest") || p === "check" || p === "off-spot" || p === "release";

/** Phases after which nothing more happens. */
export const over = (p: Phase) => p === "done" || p === "stopped";

export const trendKeys: SignKey[] = [
  { event: "trend", value: "less", name: "Less", key: "," },
  { event: "trend", value: "same", name: "Same", key: "." },
  { event: "trend", value: "more", name: "More", key: "/" },
];

const softens: SignKey = { event: "softening", name: "Softens", key: "f" };
const outBreath: SignKey = { event: "breath", value: "out", name: "Out-breath", key: "b" };
const next: SignKey = { event: "rep", name: "Next now", key: "j" };

const softening: Phase[] = ["settle", "stage", "narrow", "still", "sink"];
const byRep: Phase[] = ["press", "move", "push", "lengthen", "stroke"];

/** The two keys that a part may have of its own, always in the same place. */
export function partKeys(phase: Phase, plan?: Schemas["HoldPlan"]): [SignKey, boolean][] {
  const breath = phase === "sink" || (phase === "lengthen" && !!plan?.by_breath);
  return [[softens, softening.includes(phase)], breath ? [outBreath, true] : [next, byRep.includes(phase)]];
}

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
    a: { event: "angle-change" },
    h: { event: "pause" },
  };
  const sign = [...trendKeys, softens, outBreath, next, ...signKeys].find((s) => s.key === key.toLowerCase());
  return named[key] ?? (sign && { event: sign.event, value: sign.value });
}
