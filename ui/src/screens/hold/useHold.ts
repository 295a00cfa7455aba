// One hold under way: its log, what the coach says now, and writing to both.
import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { at, beganAt, now, refresh } from "../../core/clock";
import type { HoldView } from "../../core/core";
import { device } from "../../core/outbox";
import type { LiveVisit } from "../../core/useVisit";
import { forgetAttended, useAttended } from "../../core/attended";
import { handOn, over } from "./keys";

type Hold = Schemas["Hold"];
export type Act = (event: Schemas["HoldEventKind"], value?: string | number) => void;

export interface LiveHold {
  view: HoldView;
  /** Seconds since it began. */
  seconds: number;
  /** Whether anything can be taken back. */
  begun: boolean;
  ended: boolean;
  act: Act;
  /** Ends it where its log ends. */
  end: () => void;
  /** Since when nobody has attended it, ms from the start; while that is asked, time stands. */
  alone?: number;
  /** It ended then, or it goes on from then with a new contact. */
  endedThen: () => void;
  goOn: () => void;
}

/** The source of what an instrument says, so that undo takes back a word. */
const instrument = "pressure-pad";

/** How often the clocks move. */
const tickMS = 200;

export function useHold({ core, write }: LiveVisit, hold: Hold): LiveHold {
  const began = beganAt(hold);
  // The log is kept here too, so that an answer is on screen in the same frame.
  const log = useRef(hold.log);
  if (hold.log.length > log.current.length) log.current = hold.log;
  /** What a pad said late is not last by its time. */
  const lastMS = useCallback(() => log.current.reduce((ms, e) => Math.max(ms, e.at_ms), 0), []);
  const ended = useRef(hold.status !== "live");
  const replay = useCallback((ms: number) => core.hold(hold.start, log.current, ms), [core, hold.start]);
  const [view, setView] = useState(() => replay(now() - began));
  const elapsed = useCallback(() => now() - began, [began]);
  const { phase } = view.line;
  // Paused by nobody is the core's own word that nobody attends.
  const wasOn = phase === "paused" && log.current.at(-1)?.event !== "pause";
  const [alone, settled] = useAttended({
    hold: hold.id,
    on: handOn(phase) && !ended.current,
    wasOn: wasOn && !ended.current,
    elapsed,
    lastKey: lastMS,
  });
  const look = useCallback(() => {
    setView(replay(Math.max(lastMS(), alone ?? elapsed())));
  }, [replay, elapsed, lastMS, alone]);

  const endAt = useCallback(
    (lastSign?: number) => {
      if (ended.current) return;
      ended.current = true;
      forgetAttended(hold.id);
      const s = replay(lastMS()).summary;
      write("hold-ended", {
        hold: hold.id,
        outcome: s.outcome,
        pressure_ms: Math.round(s.pressure_s * 1000),
        parts: s.parts?.length ?? s.stages.length,
        ...(lastSign === undefined ? {} : { last_sign_ms: lastSign }),
      });
    },
    [replay, hold.id, write, lastMS],
  );
  const end = useCallback(() => endAt(), [endAt]);

  const happened = useCallback(
    (ms: number, event: Schemas["HoldEventKind"], value?: string | number) => {
      if (ended.current) return;
      const at_ms = Math.max(lastMS(), Math.round(ms));
      const body = { hold: hold.id, at_ms, event, ...(value === undefined ? {} : { value }) };
      log.current = [...log.current, { ...body, source: event === "pressure" ? instrument : device }];
      write("hold-event", body);
      look();
    },
    [hold.id, look, write, lastMS],
  );
  const act = useCallback<Act>((event, value) => happened(elapsed(), event, value), [happened, elapsed]);

  useEffect(() => {
    look(); // since when it stands is shown at once
    return refresh(tickMS, look);
  }, [look]);
  // What falls due is said at its time, not with the next tick.
  const due = view.due_ms;
  useEffect(() => (due === undefined ? undefined : at(began + due, look)), [due, began, look]);
  useEffect(() => {
    if (over(phase)) end();
  }, [phase, end]);
  const isOver = over(phase) || ended.current;
  return {
    view,
    seconds: isOver ? lastMS() / 1000 + 1 : Math.max(0, (alone ?? elapsed()) / 1000),
    begun: log.current.length > 0,
    ended: ended.current,
    act,
    end,
    alone,
    ...answered(alone, happened, endAt, settled),
  };
}

/** What is said of a hold that nobody attended. */
const answered = (
  since: number | undefined,
  happened: (ms: number, event: Schemas["HoldEventKind"]) => void,
  endAt: (lastSign: number) => void,
  settled: () => void,
): Pick<LiveHold, "endedThen" | "goOn"> => ({
  endedThen: () => {
    if (since === undefined) return;
    happened(since, "end");
    endAt(since);
    settled();
  },
  goOn: () => {
    if (since === undefined) return;
    happened(since, "pause");
    settled();
  },
});
