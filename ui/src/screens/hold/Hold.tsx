// The hold in table mode: the coach in the core says what to do; this shows it
// large, takes answers by knuckle, key or pedal, and writes every event to the
// outbox the moment it happens.
import { useCallback, useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import type { HoldView } from "../../core/core";
import { beganAt, now } from "../../core/clock";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Trouble, Waiting } from "../../parts/controls";
import { Sent } from "../../parts/Shell";
import { clock, plain, sentence } from "../../parts/words";
import { play } from "./tones";
import { Trace } from "./Trace";

const Room = styled.main`
  height: 100%;
  background: var(--paper);
  color: var(--ink);
  display: grid;
  grid-template-columns: minmax(0, 1fr) 440px;
  grid-template-rows: 44px minmax(0, 1fr) 92px;
  gap: 14px 24px;
  padding: 14px 26px 18px;
  min-height: 640px;
  user-select: none;
  .head {
    grid-column: 1 / -1;
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
    min-height: 42px;
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
  .signs {
    grid-column: 1 / -1;
    display: grid;
    grid-template-columns: 1.7fr repeat(7, 1fr) 1.6fr;
    gap: 8px;
  }
`;
const Key = styled.button<{ $tone?: "go" | "warn" | "stop" }>`
  border: 1px solid ${(p) => (p.$tone === "stop" ? "var(--stop)" : "var(--line)")};
  border-radius: 16px;
  cursor: pointer;
  padding: 4px 6px;
  font-weight: 620;
  font-size: 19px;
  line-height: 1.15;
  background: ${(p) => (p.$tone === "go" ? "var(--accent)" : p.$tone === "stop" ? "var(--stop-soft)" : p.$tone === "warn" ? "var(--warn-soft)" : "var(--card)")};
  color: ${(p) => (p.$tone === "go" ? "var(--accent-ink)" : p.$tone === "stop" ? "var(--stop)" : "var(--ink)")};
  kbd {
    display: block;
    font: 500 14px var(--text);
    opacity: 0.92;
    margin-top: 3px;
  }
  &:active {
    filter: brightness(1.2);
  }
  &:disabled {
    opacity: 0.3;
    cursor: default;
  }
`;
const Score = styled(Key)`
  font-size: 40px;
  font-variant-numeric: tabular-nums;
`;

export default function Hold({ me }: { me: Schemas["Me"] }) {
  const { id = "", hold = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  useEffect(() => {
    document.documentElement.dataset.mode = "table";
    return () => {
      delete document.documentElement.dataset.mode;
    };
  }, []);
  if (error && !visit) return <Trouble error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening the hold…</Waiting>;
  const h = visit.state.holds.find((x) => x.id === hold);
  if (!h) return <Trouble error={new Error("There is no such hold in this visit.")} />;
  return <Live visit={visit} hold={h} />;
}

const tone = (advice: string[]) => {
  const a = advice[0] ?? "";
  if (["stop", "move-off"].includes(a)) return "stop";
  if (["ease-off", "release-slowly"].includes(a)) return "ease";
  return ["breathe-and-deepen", "sink-slightly", "return-lighter"].includes(a) ? "deep" : "calm";
};

/** What the pedal, Space or the widest key does in a phase. */
const primary: Record<string, { event: string; name: string }> = {
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

interface SignKey {
  event: string;
  value?: string;
  name: string;
  key: string;
  tone?: "warn" | "stop";
}

const trendKeys: SignKey[] = [
  { event: "trend", value: "less", name: "Less", key: "," },
  { event: "trend", value: "same", name: "Same", key: "." },
  { event: "trend", value: "more", name: "More", key: "/" },
];

const signKeys: SignKey[] = [
  { event: "off-spot", name: "Slipped off", key: "o" },
  { event: "twitch", name: "Twitch", key: "t" },
  { event: "guard", name: "Guarding", key: "g", tone: "warn" },
  { event: "nerve-sign", name: "Nerve sign", key: "n", tone: "warn" },
  { event: "pulse", name: "Pulse", key: "p", tone: "warn" },
  { event: "unwell", name: "Unwell", key: "u", tone: "stop" },
  { event: "skin-reaction", name: "Skin welts", key: "k", tone: "stop" },
];
const allKeys = [...trendKeys, ...signKeys];

function Live({ visit, hold }: { visit: LiveVisit; hold: Schemas["Hold"] }) {
  const { core, write, open } = visit;
  const go = useNavigate();
  const began = beganAt(hold);
  // The log is kept here too, so that an answer is on screen in the same frame.
  const log = useRef<Schemas["HoldHappened"][]>(hold.log);
  if (hold.log.length > log.current.length) log.current = hold.log;
  const [view, setView] = useState<HoldView>(() => core.hold(hold.start, log.current, now() - began));
  const [sound, setSound] = useState(true);
  const ended = useRef(hold.status !== "live");
  const last = useRef("");

  const look = useCallback(() => {
    const latest = log.current.at(-1)?.at_ms ?? 0;
    const v = core.hold(hold.start, log.current, Math.max(latest, now() - began));
    setView(v);
    return v;
  }, [core, hold.start, began]);

  const end = useCallback(() => {
    if (ended.current) return;
    ended.current = true;
    const s = core.hold(hold.start, log.current, log.current.at(-1)?.at_ms ?? 0).summary;
    write("hold-ended", {
      hold: hold.id,
      outcome: s.outcome,
      pressure_ms: Math.round(s.pressure_s * 1000),
      stages: s.stages.length,
    });
  }, [core, hold.id, hold.start, write]);

  const act = useCallback(
    (event: string, value?: string | number) => {
      if (ended.current) return;
      const at_ms = Math.max(log.current.at(-1)?.at_ms ?? 0, Math.round(now() - began));
      const body = { hold: hold.id, at_ms, event, ...(value === undefined ? {} : { value }) };
      log.current = [...log.current, body];
      write("hold-event", body);
      look();
    },
    [hold.id, began, look, write],
  );

  useEffect(() => {
    const t = setInterval(look, 200);
    return () => clearInterval(t);
  }, [look]);

  const { line, summary } = view;
  useEffect(() => {
    if (line.phase === "done" || line.phase === "stopped") end();
  }, [line.phase, end]);
  useEffect(() => {
    const said = line.advice.at(-1) ?? "";
    const stamp = `${line.phase}:${line.advice.join()}`;
    if (stamp !== last.current) {
      last.current = stamp;
      if (sound && !ended.current) play(said);
    }
  }, [line.phase, line.advice, sound]);
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    navigator.wakeLock?.request("screen").then(
      (l) => {
        lock = l;
      },
      () => undefined,
    );
    return () => void lock?.release();
  }, []);

  const main = primary[line.phase];
  const over = line.phase === "done" || line.phase === "stopped" || ended.current;
  const back = useCallback(() => {
    const pressing = ["settle", "stage", "check", "off-spot", "release"].includes(line.phase);
    if (pressing) act("release");
    end();
    go(`/visits/${open.visit.id}?step=press`);
  }, [line.phase, act, end, go, open.visit.id]);

  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
      const sign = allKeys.find((s) => s.key === e.key.toLowerCase());
      const done = () => e.preventDefault();
      if (e.key === "Escape") {
        act("client-stop");
        done();
      } else if (e.key === " " || e.key === "PageDown" || e.key === "Enter") {
        if (over) back();
        else if (main) act(main.event);
        done();
      } else if (/^[0-9]$/.test(e.key)) {
        act("score", Number(e.key));
        done();
      } else if (e.key === "=" || e.key === "x") {
        act("score", 10);
        done();
      } else if (e.key === "Backspace") {
        act("undo");
        done();
      } else if (e.key === "r") {
        act("release");
        done();
      } else if (e.key === "c") {
        act("contact");
        done();
      } else if (sign) {
        act(sign.event, sign.value);
        done();
      }
    };
    addEventListener("keydown", keys);
    return () => removeEventListener("keydown", keys);
  }, [act, back, main, over]);

  const cap = hold.start.limits.cap_ms / 1000;
  const l = hold.start.limits;
  const pressing = ["settle", "stage", "check", "off-spot", "release"].includes(line.phase);
  const t = Math.max(0, (now() - began) / 1000);
  // One number in front: the stage's, the flush's, else the pressure's.
  const front =
    line.phase === "flush"
      ? { n: Math.ceil(line.wait_left_s), u: "s of flushing left" }
      : line.stage_left_s > 0
        ? { n: Math.ceil(line.stage_left_s), u: "s left in this stage" }
        : { n: Math.floor(line.pressure_s), u: "s pressed" };
  return (
    <Room data-phase={line.phase} data-advice={line.advice.join(" ")} data-stage={line.stage}>
      <div className="head">
        <h1>
          {sentence(plain(hold.start.muscle ?? ""))}, {hold.start.side}
        </h1>
        <span>
          target {l.target} · ceilings {l.soft_ceiling} / {l.hard_ceiling}
        </span>
        <span style={{ flex: 1 }} />
        <Sent />
        <Key style={{ minHeight: 44, padding: "0 16px", fontSize: 16 }} onClick={() => setSound(!sound)}>
          {sound ? "Tones on" : "Tones off"}
        </Key>
        <Key style={{ minHeight: 44, padding: "0 16px", fontSize: 16 }} onClick={back}>
          Back to the visit
        </Key>
      </div>
      <div className="say">
        <div className="do" data-tone={tone(line.advice)} role="status" aria-live="assertive">
          {line.text}
        </div>
        <div className="ask" aria-live="polite">
          {line.ask ?? ""}
        </div>
        <div className="clocks">
          <span className="big" data-front>
            {front.n}
          </span>
          <span className="unit">
            {front.u}
            <br />
            <b>{line.stage ? `Stage ${line.stage} of 3` : "No stage yet"}</b>
            <br />
            {clock(line.pressure_s)} of {clock(cap)} pressed
            {line.overrun_s > 0 && (
              <b style={{ color: "var(--warn)" }}> · {Math.floor(line.overrun_s)} s over</b>
            )}
          </span>
        </div>
        <div>
          <div
            className="bar"
            role="progressbar"
            aria-label="Pressure time"
            aria-valuenow={Math.round(line.pressure_s)}
            aria-valuemax={cap}
          >
            <i style={{ width: `${(100 * line.pressure_s) / cap}%` }} data-over={line.pressure_s >= cap} />
          </div>
          <div className="why" data-reason>
            {line.reason}
          </div>
        </div>
        <div style={{ minHeight: 0 }}>
          <Trace summary={summary} now={over ? (log.current.at(-1)?.at_ms ?? 0) / 1000 + 1 : t} />
        </div>
      </div>
      <div className="scores" role="group" aria-label="The client's number">
        {trendKeys.map((s) => (
          <Key key={s.name} disabled={!pressing} onClick={() => act(s.event, s.value)}>
            {s.name}
            <kbd>{s.key}</kbd>
          </Key>
        ))}
        {[7, 8, 9, 4, 5, 6, 1, 2, 3].map((n) => (
          <Score
            key={n}
            $tone={n > l.soft_ceiling ? "warn" : undefined}
            disabled={!pressing}
            onClick={() => act("score", n)}
            aria-label={`Number ${n}`}
          >
            {n}
          </Score>
        ))}
        <Score disabled={!pressing} onClick={() => act("score", 0)} aria-label="Number 0">
          0
        </Score>
        <Score $tone="warn" disabled={!pressing} onClick={() => act("score", 10)} aria-label="Number 10">
          10
        </Score>
        <Key disabled={log.current.length === 0 || ended.current} onClick={() => act("undo")}>
          Undo<kbd>⌫</kbd>
        </Key>
      </div>
      <div className="signs">
        {over ? (
          <Key $tone="go" onClick={back}>
            Back to the visit<kbd>space</kbd>
          </Key>
        ) : (
          <Key $tone="go" disabled={!main} onClick={() => main && act(main.event)}>
            {main?.name ?? "Flush"}
            <kbd>space · pedal</kbd>
          </Key>
        )}
        {signKeys.map((s) => (
          <Key key={s.name} $tone={s.tone} disabled={over} onClick={() => act(s.event, s.value)}>
            {s.name}
            <kbd>{s.key.toUpperCase()}</kbd>
          </Key>
        ))}
        <Key
          $tone="stop"
          disabled={ended.current}
          style={{ fontSize: 26 }}
          onClick={() => act("client-stop")}
        >
          Stop<kbd>esc</kbd>
        </Key>
      </div>
    </Room>
  );
}
