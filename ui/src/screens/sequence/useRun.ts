// A sequence on its way: which step runs, how long it has, and what may be done with it. The
// log has every step; what is kept here is only how much longer one asked for.
import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { at, now, refresh } from "../../core/clock";
import type { LiveVisit } from "../../core/useVisit";
import { useOneAct } from "./useOneAct";

type Run = Schemas["Run"];
type Happening = Schemas["SequenceHappened"]["event"];

/** So much longer a step takes at a touch. */
export const longerS = 15;
/** Past its end by this, without a sign of life, a step was left, and does not hand over. */
const leftS = 60;

export interface Running {
  /** From 1; 0 while none runs. */
  at: number;
  step?: Schemas["StepRun"];
  /** What comes after it. */
  next?: Schemas["StepRun"];
  leftS: number;
  share: number;
  /** Nobody was there when it ended. */
  away: boolean;
  over: boolean;
  refused: string;
  begin: (step: number) => boolean;
  /** False where another act is not over yet. */
  hand: () => boolean;
  skip: () => void;
  back: () => void;
  longer: () => void;
  swap: (() => void) | undefined;
  sign: (event: Happening) => void;
}

const open = (s: Schemas["StepRun"]) => !s.outcome;

/** The next step that is open, behind one and then from the first; 0 where none is. */
function openAfter({ steps }: Run, at: number): number {
  const behind = steps.findIndex((s, i) => i >= at && open(s));
  return (behind >= 0 ? behind : steps.findIndex((s, i) => i + 1 !== at && open(s))) + 1;
}

/** The same step on the other side, while it is open. */
function otherSide({ steps }: Run, at: number): number {
  const s = steps[at - 1];
  if (!s) return 0;
  const same = (o: Schemas["StepRun"]) =>
    o.technique === s.technique && o.where === s.where && o.side !== s.side && open(o);
  return steps.findIndex(same) + 1;
}

export function useRun(visit: LiveVisit, run: Run): Running {
  const { open: opened, preview, write } = visit;
  const [refused, setRefused] = useState("");
  const doOne = useOneAct(visit);
  const [more, setMore] = useState({ at: 0, s: 0 });
  const current = run.steps[run.at - 1];
  const running = current && open(current) ? run.at : 0;
  const step = running ? current : undefined;
  const lasts = (step?.seconds ?? 0) + (more.at === running ? more.s : 0);
  const gone = useGone(step?.began_ms, opened.context.clock_ms ?? 0, lasts);
  const away = gone > lasts + leftS;
  const next = openAfter(run, running);
  const say = useCallback(
    (n: number, event: Happening, seconds?: number) =>
      write("sequence-event", {
        run: run.run,
        step: n,
        event,
        ...(seconds === undefined ? {} : { seconds }),
      }),
    [write, run.run],
  );
  const end = (event: "done" | "skip" | "stop") => {
    if (!running) return undefined;
    return say(running, event, event === "skip" ? undefined : Math.min(gone, lasts + leftS));
  };
  /** Ends the step that runs, if it is to be ended, and begins another. The core is asked before
   * anything is written: its answer is about the log as it stands. */
  const begin = (n: number, ends?: "done" | "skip") =>
    doOne(async () => {
      const asked = { run: run.run, step: n, event: "begin" } as const;
      const why = n ? await preview("sequence-event", asked).catch((e: Error) => e.message) : undefined;
      setRefused(why ?? "");
      const ended = ends && end(ends);
      return n && !why ? say(n, "begin") : ended;
    });
  const hand = () => begin(next, "done");
  useHandover(!!step && !away && gone >= lasts, `${run.run} ${running} ${step?.began_ms}`, hand);
  const other = otherSide(run, running);
  return {
    at: running,
    step,
    next: run.steps[next - 1],
    leftS: Math.max(0, Math.ceil(lasts - gone)),
    share: lasts > 0 ? Math.min(1, gone / lasts) : 0,
    away,
    over: !running && next === 0,
    refused,
    begin,
    hand,
    skip: () => void begin(next, "skip"),
    back: () => void begin(Math.max(1, running - 1)),
    longer: () => setMore({ at: running, s: (more.at === running ? more.s : 0) + longerS }),
    swap: other ? () => void begin(other) : undefined,
    sign: (event) => {
      if (!running) return;
      say(running, event);
      if (event === "unwell" || event === "client-stop" || event === "skin-reaction") end("stop");
    },
  };
}

/** Hands over once for each beginning, however often it is drawn. */
function useHandover(due: boolean, stamp: string, hand: () => boolean) {
  const done = useRef("");
  useEffect(() => {
    if (due && done.current !== stamp && hand()) done.current = stamp;
  });
}

/** Seconds since a step began, by this device's clock from when it was seen. */
function useGone(beganMS: number | undefined, clockMS: number, lasts: number): number {
  const seen = useRef({ beganMS, at: 0, gone: 0 });
  const [, draw] = useState(0);
  if (seen.current.beganMS !== beganMS || !seen.current.at) {
    const gone = beganMS === undefined ? 0 : Math.max(0, now() + clockMS - beganMS);
    seen.current = { beganMS, at: now(), gone };
  }
  const due = seen.current.at - seen.current.gone + lasts * 1000;
  const tick = useCallback(() => draw((n) => n + 1), []);
  useEffect(() => refresh(250, tick), [tick]);
  useEffect(() => (beganMS === undefined ? undefined : at(due, tick)), [beganMS, due, tick]);
  return beganMS === undefined ? 0 : (seen.current.gone + now() - seen.current.at) / 1000;
}
