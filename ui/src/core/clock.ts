// The clock of a hold, and how far this device's clock is off the server's.

/** What counts the seconds of a hold: the coach's deadlines, tones and prompts, and
 * the numbers on screen. Requests, retries and sign-outs do not run by it. */
export interface Clock {
  /** Time that never goes back, in Unix ms. */
  now(): number;
  /** Calls f once at a time by now(); the answer cancels it. */
  at(dueMS: number, f: () => void): () => void;
  /** Calls f again and again, at every due time; the answer cancels it. */
  every(ms: number, f: () => void): () => void;
  /** Calls f so often while somebody looks; a call may be left out. The answer cancels it. */
  refresh(ms: number, f: () => void): () => void;
}

const interval = (ms: number, f: () => void) => {
  const timer = setInterval(f, ms);
  return () => clearInterval(timer);
};

const deviceClock: Clock = {
  now: () => Math.round(performance.timeOrigin + performance.now()),
  at(dueMS, f) {
    // A timer may come a fraction of a millisecond early by the rounded clock.
    const timer = setTimeout(f, Math.max(0, dueMS - now() + 1));
    return () => clearTimeout(timer);
  },
  every: interval,
  refresh: interval,
};

let clock = deviceClock;

/** Puts another clock in the device's place; only the test build does (main.tsx). */
export function replaceClock(other: Clock) {
  clock = other;
}

/** Time that never goes back, in Unix ms. */
export const now = () => clock.now();
export const at: Clock["at"] = (dueMS, f) => clock.at(dueMS, f);
export const every: Clock["every"] = (ms, f) => clock.every(ms, f);
export const refresh: Clock["refresh"] = (ms, f) => clock.refresh(ms, f);

/** Differences below this are the network's. */
const tolerance = 2000;

let offset = 0;

/** Learns from an answer what the server's clock says. */
export function serverSaid(nowMS: number | undefined) {
  if (nowMS === undefined) return;
  const off = nowMS - now();
  offset = Math.abs(off) > tolerance ? off : 0;
}

/** What to add to this device's clock to get the server's; 0 when it is right. */
export const clockOffset = () => offset;

/** When a hold began, by this device's clock. One that was begun here is timed by
 * the clock that began it; one of another device by the server's. */
export function beganAt(hold: { started_ms: number; device_ms: number }): number {
  const ours = Math.abs(hold.started_ms - hold.device_ms - offset) <= tolerance;
  return ours ? hold.device_ms : hold.started_ms - offset;
}
