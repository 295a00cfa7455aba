// The clock of the test build: it moves from one due timer to the next, painting
// between, so that a hold of 90 s is played in about a second with the same events
// and numbers. Between two steps it runs as the device's clock does. The released
// build does not contain it (main.tsx), and the released server does not heed its
// header (api/clock.go).
import { api } from "../api/client";
import { type Clock, replaceClock } from "../core/clock";

interface Timer {
  due: number;
  /** Set of a timer that comes again. */
  everyMS?: number;
  f: () => void;
}

/** Where the time that was stepped over is kept over a reload of the page. */
const place = "mokren.stepped";

let stepped = Number(sessionStorage.getItem(place) ?? 0);
const timers = new Set<Timer>();
const refreshers = new Set<() => void>();

const now = () => Math.round(performance.timeOrigin + performance.now() + stepped);

function fire(t: Timer) {
  if (!timers.has(t)) return;
  if (t.everyMS) t.due += t.everyMS;
  else timers.delete(t);
  t.f();
}

/** Fires what has fallen due by real time too. */
function run() {
  for (const t of [...timers].sort((a, b) => a.due - b.due)) if (t.due <= now()) fire(t);
}

function keep(t: Timer) {
  timers.add(t);
  return () => {
    timers.delete(t);
  };
}

const clock: Clock = {
  now,
  at: (due, f) => keep({ due, f }),
  every: (everyMS, f) => keep({ due: now() + everyMS, everyMS, f }),
  refresh(_, f) {
    refreshers.add(f);
    return () => {
      refreshers.delete(f);
    };
  },
};

/** How often real time is looked at while nothing is stepped over. */
const lookMS = 50;
setInterval(() => {
  run();
  for (const f of refreshers) f();
}, lookMS);

const painted = () =>
  new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done))));

/** Requests under way; the core may owe an answer too. An answer tells the server's time of its request, so none is
 * stepped over; one that hangs is not waited for for ever. */
let asked = 0;
const mostLooks = 200;

/** Lets what is shown follow what was said: only then is it known whether a test waits for more. */
async function settled() {
  const owed = () => asked > 0 || globalThis.mokrenLink?.busy;
  await painted();
  for (let looks = 0; owed() && looks < mostLooks; looks++) await painted();
}

/** Goes to a time and lets what is shown follow. */
async function goTo(ms: number) {
  const over = ms - now();
  if (over > 0) {
    stepped += over;
    sessionStorage.setItem(place, String(stepped));
  }
  run();
  for (const f of refreshers) f();
  await settled();
}

/** Goes to the next due timer, unless that is later than the limit. What is due is asked when all is
 * shown: a moment between would be stepped over. */
async function step(limit: number): Promise<boolean> {
  const due = Math.min(...[...timers].map((t) => t.due));
  if (due > limit) return false;
  await goTo(due);
  return true;
}

/** What a test drives. */
const driver = {
  /** Lets so many ms of a hold pass. */
  async pass(ms: number) {
    const end = now() + ms;
    await settled();
    while (await step(end));
    await goTo(end);
  },
  /** Steps until a selector matches; false when it does not within so many ms of a hold. */
  async until(selector: string, mostMS: number): Promise<boolean> {
    const end = now() + mostMS;
    await settled();
    for (;;) {
      if (document.querySelector(selector)) return true;
      if (now() > end) return false;
      if (!(await step(end))) await settled();
    }
  },
};

declare global {
  var mokrenClock: typeof driver | undefined;
}

export function stepClock() {
  replaceClock(clock);
  globalThis.mokrenClock = driver;
  api.use({
    onRequest({ request }) {
      asked++;
      request.headers.set("Mokren-Stepped", String(Math.round(stepped)));
      return request;
    },
    onResponse() {
      asked--;
    },
    onError() {
      asked--;
    },
  });
}
