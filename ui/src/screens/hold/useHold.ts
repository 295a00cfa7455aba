// One hold under way: what the coach says now, and writing to the log. The coach lives in
// the core, which is told each event; this page keeps only how far its log has come.
import { useCallback, useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { at, beganAt, now, refresh } from "../../core/clock";
import { device, outbox } from "../../core/outbox";
import type { LiveVisit } from "../../core/useVisit";
import { forgetAttended, useAttended } from "../../core/attended";
import { useLiveCoach } from "./useLiveCoach";

type Hold = Schemas["Hold"];
export type Act = (event: Schemas["HoldEventKind"], value?: string | number) => void;

export interface LiveHold {
  view: Schemas["HoldView"];
  /** Seconds since it began. */
  seconds: number;
  /** Whether anything can be undone. */
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

/** How often it is asked whether a number changes by itself. */
const tickMS = 100;

/** Until the number in front changes by itself, ms: a hold screen on which nothing happens is drawn
 * once a second, and not at every tick. */
function untilChange({ phase, wait_left_s, part_left_s, stage_left_s, pressure_s }: Schemas["Line"]): number {
  if (phase === "ramp") return tickMS * 2;
  const left = phase === "flush" ? wait_left_s : part_left_s || stage_left_s;
  const s = left > 0 ? left % 1 || 1 : 1 - (pressure_s % 1);
  return Math.max(tickMS, s * 1000);
}

/** Looks at the hold when a number changes, and when something falls due. */
function useLooking(ask: (ms: number) => Promise<LiveHold["view"]>, moment: () => number, due?: number) {
  const changes = useRef(0);
  const look = useCallback(async () => {
    const asked = moment();
    changes.current = asked + 1000;
    const { line } = await ask(asked);
    changes.current = asked + untilChange(line);
  }, [ask, moment]);
  useEffect(() => {
    void look(); // since when it stands is shown at once
    return refresh(tickMS, () => {
      if (moment() >= changes.current) void look();
    });
  }, [look, moment]);
  // What falls due is said at its time, not with the next tick.
  useEffect(() => (due === undefined ? undefined : at(due, () => void look())), [due, look]);
}

/** The hold as it is; undefined until the core has opened it. */
export function useHold({ core, write }: LiveVisit, hold: Hold): LiveHold | undefined {
  const began = beganAt(hold);
  const elapsed = useCallback(() => now() - began, [began]);
  const coach = useLiveCoach(core, hold, elapsed);
  const live = coach.view;
  const { lastMS, add } = coach;
  const ended = useRef(hold.status !== "live");
  const [alone, settled] = useAttended({
    hold: hold.id,
    on: !!live?.hand_on && !ended.current,
    // Paused by nobody is the core's own word that nobody attends.
    wasOn: !!live?.unattended && !ended.current,
    elapsed,
    lastKey: lastMS,
  });
  const moment = useCallback(() => Math.max(lastMS(), alone ?? elapsed()), [lastMS, alone, elapsed]);
  const endAt = useCallback(
    async (lastSign?: number) => {
      if (ended.current) return;
      ended.current = true;
      forgetAttended(hold.id);
      // What it came to at its last event; what is on screen stays.
      await outbox.making(async () => {
        const { summary: s } = await core.ask("hold-look", { hold: hold.id, at_ms: lastMS() });
        write("hold-ended", {
          hold: hold.id,
          outcome: s.outcome,
          pressure_ms: Math.round(s.pressure_s * 1000),
          parts: s.parts?.length ?? s.stages.length,
          ...(lastSign === undefined ? {} : { last_sign_ms: lastSign }),
        });
      });
    },
    [core, hold.id, write, lastMS],
  );
  const end = useCallback(() => void endAt(), [endAt]);

  const happened = useCallback(
    (ms: number, event: Schemas["HoldEventKind"], value?: string | number) => {
      if (ended.current) return;
      const at_ms = Math.max(lastMS(), Math.round(ms));
      const body = { hold: hold.id, at_ms, event, ...(value === undefined ? {} : { value }) };
      // Nothing that was said waits for the coach: it is told by message, and answers while this is written.
      add({ ...body, source: event === "pressure" ? instrument : device }, Math.max(at_ms, elapsed()));
      write("hold-event", body);
    },
    [hold.id, add, write, lastMS, elapsed],
  );
  const act = useCallback<Act>((event, value) => happened(elapsed(), event, value), [happened, elapsed]);

  useLooking(coach.ask, moment, live?.due_ms === undefined ? undefined : began + live.due_ms);
  const over = !!live?.over;
  useEffect(() => {
    if (over) end();
  }, [over, end]);
  if (!live) return undefined;
  return {
    view: live,
    seconds: over || ended.current ? lastMS() / 1000 + 1 : Math.max(0, (alone ?? elapsed()) / 1000),
    begun: live.events > 0,
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
  endAt: (lastSign: number) => Promise<void>,
  settled: () => void,
): Pick<LiveHold, "endedThen" | "goOn"> => ({
  endedThen: () => {
    if (since === undefined) return;
    happened(since, "end");
    void endAt(since);
    settled();
  },
  goOn: () => {
    if (since === undefined) return;
    happened(since, "pause");
    settled();
  },
});
