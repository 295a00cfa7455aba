// The hold in table mode: the coach in the core says what to do; this shows it
// large, takes answers by knuckle, key or pedal, and writes every event to the
// outbox the moment it happens.
import { useCallback, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Key, Trouble, Waiting } from "../../parts/controls";
import { TableRoom } from "../../parts/layout";
import { Sent } from "../../parts/Sent";
import { plain, sentence } from "../../parts/words";
import { Clocks } from "./Clocks";
import { over, pressing, primary } from "./keys";
import { Scores } from "./Scores";
import { Signs } from "./Signs";
import { Trace } from "./Trace";
import { useHold } from "./useHold";
import { useKeys, useTableMode, useTones, useWakeLock } from "./useRoom";
import { phone, upright } from "../../theme";

const Room = styled(TableRoom)`
  .head {
    display: flex;
    gap: 18px;
    align-items: center;
    font-size: 19px;
    color: var(--ink-soft);
    min-width: 0;
  }
  .head h1 {
    color: var(--ink);
    font-family: var(--serif);
    font-size: 23px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .say {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr) auto 156px;
    gap: 8px;
    min-height: 0;
  }
  .do {
    font-family: var(--serif);
    font-size: clamp(46px, 6vw, 84px);
    line-height: 1.04;
    font-weight: 580;
    min-height: 2.08em;
    text-wrap: balance;
  }
  .fill {
    flex: 1;
  }
  .trace {
    min-height: 0;
  }
  .over {
    color: var(--warn);
  }
  .do[data-tone="ease"] {
    color: var(--warn);
  }
  .do[data-tone="stop"] {
    color: var(--stop);
  }
  .do[data-tone="deep"] {
    color: var(--accent);
  }
  .ask {
    font-size: 30px;
    font-weight: 600;
    min-height: 44px;
    color: var(--accent);
  }
  .clocks {
    display: flex;
    align-items: center;
    gap: 34px;
  }
  .big {
    font-size: clamp(90px, 12.5vw, 168px);
    line-height: 0.86;
    font-weight: 640;
    font-variant-numeric: tabular-nums;
    letter-spacing: -0.03em;
  }
  .unit {
    font-size: 28px;
    color: var(--ink-soft);
    line-height: 1.2;
    padding-bottom: 4px;
  }
  .unit b {
    color: var(--ink);
  }
  .why {
    font-size: 20px;
    color: var(--ink-soft);
    min-height: 28px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .bar {
    height: 20px;
    border-radius: 10px;
    background: var(--line-soft);
    overflow: hidden;
    position: relative;
    margin-bottom: 6px;
  }
  .bar i {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--accent);
  }
  .bar i[data-over="true"] {
    background: var(--warn);
  }
  .scores {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    grid-template-rows: 76px repeat(4, minmax(72px, 1fr));
    gap: 8px;
    min-height: 0;
  }
  .stop {
    font-size: 26px;
  }
  .keys {
    display: grid;
    grid-template-columns: 1.7fr repeat(7, 1fr) 1.6fr;
    gap: 8px;
  }
  ${upright} {
    .keys {
      grid-template-columns: repeat(5, 1fr);
      grid-auto-rows: 78px;
    }
    .keys > :first-child {
      grid-column: span 2;
    }
  }
  ${phone} {
    .keys {
      grid-template-columns: repeat(3, 1fr);
    }
    .keys > :last-child {
      grid-column: span 2;
    }
    .unit {
      font-size: 20px;
    }
  }
`;
export default function Hold({ me }: { me: Schemas["Me"] }) {
  const { id = "", hold = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  useTableMode();
  if (error && !visit) return <Trouble error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening the hold…</Waiting>;
  const h = visit.state.holds.find((x) => x.id === hold);
  if (!h) return <Trouble error={new Error("There is no such hold in this visit.")} />;
  return <Live visit={visit} hold={h} />;
}

const tones: Partial<Record<Schemas["Advice"], string>> = {
  stop: "stop",
  "move-off": "stop",
  "ease-off": "ease",
  "release-slowly": "ease",
  "breathe-and-deepen": "deep",
  "sink-slightly": "deep",
  "return-lighter": "deep",
};

function Live({ visit, hold }: { visit: LiveVisit; hold: Schemas["Hold"] }) {
  const go = useNavigate();
  const live = useHold(visit, hold);
  const { act, end, view } = live;
  const { line, summary } = view;
  const [sound, setSound] = useState(true);
  const ended = live.ended || over(line.phase);
  const main = primary[line.phase];
  const back = useCallback(() => {
    if (pressing(line.phase)) act("release");
    end();
    go(`/visits/${visit.open.visit.id}?step=press`);
  }, [line.phase, act, end, go, visit.open.visit.id]);
  const pedal = useCallback(() => {
    if (ended) back();
    else if (main) act(main.event);
  }, [ended, back, main, act]);
  useTones(line, sound && !live.ended);
  useWakeLock();
  useKeys(act, pedal);
  const { limits } = hold.start;
  const first = line.advice[0];
  return (
    <Room
      $side="440px"
      $keys="92px"
      data-phase={line.phase}
      data-advice={line.advice.join(" ")}
      data-stage={line.stage}
    >
      <div className="head">
        <h1>
          {sentence(plain(hold.start.muscle ?? ""))}, {hold.start.side}
        </h1>
        <span>
          target {limits.target} · ceilings {limits.soft_ceiling} / {limits.hard_ceiling}
        </span>
        <span className="fill" />
        <Sent />
        <Key $slim onPress={() => setSound(!sound)}>
          {sound ? "Tones on" : "Tones off"}
        </Key>
        <Key $slim onPress={back}>
          Back to the visit
        </Key>
      </div>
      <div className="say">
        <div className="do" data-tone={(first && tones[first]) ?? "calm"} role="status" aria-live="assertive">
          {line.text}
        </div>
        <div className="ask" aria-live="polite">
          {line.ask ?? ""}
        </div>
        <Clocks line={line} capS={limits.cap_ms / 1000} />
        <div className="trace">
          <Trace summary={summary} now={live.seconds} />
        </div>
      </div>
      <Scores
        soft={limits.soft_ceiling}
        off={!pressing(line.phase)}
        canUndo={live.begun && !live.ended}
        act={act}
      />
      <Signs main={main} ended={ended} stopped={live.ended} onPedal={pedal} act={act} />
    </Room>
  );
}
