// The hold in table mode: the coach in the core says what to do; this shows it
// large, takes answers by knuckle, key or pedal, and writes every event to the
// outbox the moment it happens.
import { lazy, Suspense, useCallback, useRef, useState } from "react";
import { Navigate, useNavigate, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { actingIn, ofBench } from "../../core/benchVisit";
import { isLocal } from "../../core/localIDs";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { type PadSeen, useVisitWire } from "../../core/useVisitWire";
import { ErrorPanel, Waiting } from "../../parts/controls";
import { clock, listed, sentence, unbroken } from "../../parts/words";
import { Answers } from "./Answers";
import { Alone, endsAt } from "./Alone";
import { Between } from "./Between";
import { Care } from "./Care";
import { Clocks, PressureBar } from "./Clocks";
import { Force } from "./Force";
import { Head, type HoldPanel } from "./Head";
import { HoldRoom } from "./HoldRoom";
import { mainKey } from "./keys";
import { Pace } from "./Pace";
import { PadPanel } from "./PadPanel";
import { lengthens, RangeEntry } from "./RangeEntry";
import { RoomSettings } from "./RoomSettings";
import { type RoomPrefs, useRoomPrefs } from "./roomPrefs";
import { Spot } from "./Spot";
import { Stations } from "./Stations";
import { Signs } from "./Signs";
import { Trace } from "./Trace";
import { type LiveHold, useHold } from "./useHold";
import { useOnward } from "./useOnward";
import { type PadHand, usePadHand } from "./usePadHand";
import { useKeys, useTableMode, useTones, useWakeLock } from "./useRoom";

/** Read now and then: fetched when it is opened. */
const HoldHelp = lazy(() => import("./HoldHelp"));
export default function Hold({ me }: { me: Schemas["Me"] }) {
  const { id = "", hold = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  useTableMode();
  if (error && !visit) return <ErrorPanel error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening the hold…</Waiting>;
  const h = visit.state.holds.find((x) => x.id === hold);
  // A visit of nobody ends with its page: there is no hold of before to go on with.
  if (!h && isLocal(id)) return <Navigate to={`/visits/${id}`} replace />;
  if (!h) return <ErrorPanel error={new Error("There is no such hold in this visit.")} />;
  return <Opened key={h.id} me={actingIn(id, me)} visit={visit} hold={h} />;
}

function Opened(props: Pick<SaidProps, "me" | "visit" | "hold">) {
  const live = useHold(props.visit, props.hold);
  return live ? <Live live={live} {...props} /> : <Waiting>Opening the hold…</Waiting>;
}

const tones: Partial<Record<Schemas["Advice"], string>> = {
  stop: "stop",
  "move-off": "stop",
  "ease-off": "ease",
  "release-slowly": "ease",
  "breathe-and-deepen": "deep",
  "sink-slightly": "deep",
  "return-lighter": "deep",
  "next-rep": "deep",
};

/** Where the hold leads: back to where it came from, and what the pedal does next. */
function useWays(visit: LiveVisit, me: Schemas["Me"], live: LiveHold, ended: boolean) {
  const go = useNavigate();
  // A step of a sequence: behind the hold it goes on there.
  const run = useSearchParams()[0].get("run");
  const id = visit.open.visit.id;
  const { act, end } = live;
  const { hand_on } = live.view;
  const main = mainKey(live.view);
  const back = useCallback(() => {
    if (hand_on) act("release");
    end();
    go(run ? `/visits/${id}/sequence/${run}` : `/visits/${id}?step=press`);
  }, [hand_on, act, end, go, id, run]);
  const onward = useOnward(visit, me, run, ended || !hand_on);
  const on = useRef(onward);
  on.current = onward;
  const pedal = useCallback(() => {
    if (ended) (on.current ?? back)();
    else if (main) act(main.event);
  }, [ended, back, main, act]);
  return { back, pedal, backTo: run ? "Back to the sequence" : "Back to the visit" };
}

function Live({ me, visit, hold, live }: Omit<SaidProps, "pad">) {
  const { act } = live;
  const { line, over, takes } = live.view;
  const [prefs, keep] = useRoomPrefs();
  const [open, setOpen] = useState<HoldPanel>();
  const turn = useCallback((panel: HoldPanel) => setOpen((now) => (now === panel ? undefined : panel)), []);
  const id = visit.open.visit.id;
  const seen = useVisitWire(id, !live.ended);
  const pad = usePadHand(visit.core, live);
  const ended = live.ended || !!over;
  const main = mainKey(live.view);
  const { back, backTo, pedal } = useWays(visit, me, live, ended);
  const asked = live.alone !== undefined;
  const stood = clock(line.pressure_s);
  const bench = ofBench(id);
  useTones(line, prefs, !live.ended && !asked && bench?.coach !== "silent");
  useWakeLock();
  useKeys(act, pedal, prefs.pedal, !open && !asked);
  return (
    <HoldRoom
      $side="400px"
      $keys="92px"
      data-phase={line.phase}
      data-advice={line.advice.join(" ")}
      data-stage={line.stage}
      data-rep={line.rep}
    >
      <Head
        visit={id}
        core={visit.core}
        hold={hold}
        prefs={prefs}
        seen={seen}
        pad={pad}
        onOpen={turn}
        back={backTo}
        onBack={back}
      />
      <Panels
        open={open}
        visit={id}
        prefs={prefs}
        keep={keep}
        seen={seen}
        onClose={() => setOpen(undefined)}
      />
      {live.alone === undefined ? (
        <Said me={me} visit={visit} hold={hold} live={live} pad={pad} />
      ) : (
        <Alone after={stood} onEnd={live.endedThen} onGoOn={live.goOn} />
      )}
      <Answers me={me} visit={visit} hold={hold} live={live} asked={asked} />
      <Signs
        main={asked ? endsAt(stood) : main?.name}
        takes={takes}
        ended={ended}
        back={backTo}
        waiting={asked}
        stopped={live.ended}
        onPedal={asked ? live.endedThen : pedal}
        act={act}
      />
    </HoldRoom>
  );
}

interface PanelsProps {
  open?: HoldPanel;
  visit: string;
  prefs: RoomPrefs;
  keep: (p: Partial<RoomPrefs>) => void;
  seen: PadSeen;
  onClose: () => void;
}

/** What is set or read beside the hold. */
function Panels({ open, visit, prefs, keep, seen, onClose }: PanelsProps) {
  switch (open) {
    case "room":
      return <RoomSettings prefs={prefs} keep={keep} onClose={onClose} />;
    case "pad":
      return <PadPanel visit={visit} seen={seen} onClose={onClose} />;
    case "help":
      return (
        <Suspense fallback={null}>
          <HoldHelp onClose={onClose} />
        </Suspense>
      );
  }
  return null;
}

/** What the hold came to, in a few words. */
const cameTo = ({ result, summary }: Schemas["HoldView"]) =>
  listed(sentence(result), summary.pressure_s > 0 && `${clock(summary.pressure_s)} pressed`);

interface SaidProps {
  me: Schemas["Me"];
  visit: LiveVisit;
  hold: Schemas["Hold"];
  live: LiveHold;
  pad: PadHand;
}

/** What to do now, what to ask, how far it is. */
function Said({ me, visit, hold, live, pad }: SaidProps) {
  const { line, summary, hand_on, over, moving } = live.view;
  const { plan, limits } = hold.start;
  const capS = limits.cap_ms / 1000;
  const silent = ofBench(visit.open.visit.id)?.coach === "silent" && !live.ended;
  const first = silent ? undefined : line.advice[0];
  const steering = plan?.steering ?? "stages";
  const ended = live.ended || !!over;
  const running = !!hand_on || line.phase === "rest";
  return (
    <div className="say" data-ended={ended}>
      <div className="do" data-tone={(first && tones[first]) ?? "calm"} role="status" aria-live="assertive">
        {silent ? "The coach is silent." : unbroken(line.text)}
      </div>
      <div className="ask" aria-live="polite">
        {ended ? cameTo(live.view) : unbroken((silent ? undefined : line.ask) ?? pad.error ?? "")}
        {!ended && moving && <p className="moving">{unbroken(moving)}</p>}
      </div>
      {!ended && (
        <div className="pace">
          <Pace line={line} plan={plan} />
          <Clocks line={line} capS={capS} steering={steering} presses={!plan || !!plan.presses} />
          {pad.using && pad.reading && <Force reading={pad.reading} />}
          {!(pad.using && pad.reading) && steering !== "stations" && !lengthens(plan) && (
            <Spot visit={visit} hold={hold} />
          )}
          {steering === "stations" && <Stations visit={visit} hold={hold} line={line} />}
          {lengthens(plan) && (
            <RangeEntry core={visit.core} phase={line.phase} summary={summary} act={live.act} />
          )}
        </div>
      )}
      {!ended && <PressureBar line={line} capS={capS} />}
      {ended ? (
        <Between visit={visit} hold={hold} me={me} />
      ) : (
        <>
          <div className="trace">
            <Trace summary={summary} now={live.seconds} running={running} />
          </div>
          <Care visit={visit} hold={hold} />
        </>
      )}
    </div>
  );
}
