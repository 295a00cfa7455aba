// A sequence in table mode: one step large, what comes next small, the side unmistakable. It runs
// by itself; pedal, keys and touch hand over, and it can be left and rejoined at any step.
import { useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { ErrorPanel, Key, Waiting } from "../../parts/controls";
import { Sent } from "../../parts/Sent";
import { clock, plain, positionName, unbroken } from "../../parts/words";
import { useRoomPrefs } from "../hold/roomPrefs";
import { useTableMode, useWakeLock } from "../hold/useRoom";
import { useNextHold } from "../visit/press/useNextHold";
import { SequenceRoom } from "./SequenceRoom";
import { StepFigure } from "./StepFigure";
import { longerS, type Running, useRun } from "./useRun";
import { useStepTones } from "./useStepTones";
import { whatOf, whereOf } from "./stepWords";
import { useStepHold } from "./useStepHold";
import { useStepKeys } from "./useStepKeys";

export default function Sequence({ me }: { me: Schemas["Me"] }) {
  const { id = "", run = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  useTableMode();
  if (error && !visit) return <ErrorPanel error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening the sequence…</Waiting>;
  const found = visit.state.runs?.find((r) => r.run === run);
  if (!found) return <ErrorPanel error={new Error("There is no such sequence in this visit.")} />;
  return <Live visit={visit} run={found} me={me} />;
}

/** How it is counted. */
function doseOf({ dose }: Schemas["StepRun"]): string {
  if (dose.repetitions) return `${dose.repetitions} × ${dose.each_s} s`;
  if (dose.stations) return `${dose.stations} places, ${dose.each_s} s each`;
  if (dose.breaths) return `${dose.breaths} breaths`;
  return "";
}

function Live({ visit, run, me }: { visit: LiveVisit; run: Schemas["Run"]; me: Schemas["Me"] }) {
  const go = useNavigate();
  const r = useRun(visit, run);
  const [prefs] = useRoomPrefs();
  const id = visit.open.visit.id;
  const leave = () => go(`/visits/${id}?step=plan`);
  const pointHere = () => go(`/visits/${id}?step=find`);
  useWakeLock();
  useStepTones(r, prefs.loudness, prefs.spoken);
  const after = useAfter(visit, run, me);
  const notHeld = useStepHold(visit, run, r, me);
  const pedal = () => {
    if (visit.state.screen_again) leave();
    else if (r.over) after.go();
    else if (r.at) r.hand();
    else r.begin(1);
  };
  useStepKeys(prefs.pedal, r, pedal, pointHere);
  const { step } = r;
  return (
    <SequenceRoom $side="0px" $keys="auto" data-run={run.run} data-at={r.at} data-over={r.over || undefined}>
      <header>
        <h1>{run.name}</h1>
        <span className="quiet">
          {r.at ? `step ${r.at} of ${run.steps.length}` : `${run.steps.length} steps`}
        </span>
        <Sent />
        <Key $slim onPress={pointHere}>
          Point here
        </Key>
        <Key $slim onPress={leave}>
          Back to the visit
        </Key>
      </header>
      {step && !visit.state.screen_again ? (
        <Now visit={visit} r={r} step={step} notHeld={notHeld} />
      ) : (
        <Still visit={visit} run={run} r={r} emergency={me.emergency_number} />
      )}
      <Controls r={r} stopped={!!visit.state.screen_again} after={after.name} onMain={pedal} />
    </SequenceRoom>
  );
}

/** The step that runs. */
function Now({
  visit,
  r,
  step,
  notHeld,
}: {
  visit: LiveVisit;
  r: Running;
  step: Schemas["StepRun"];
  /** Why the hold screen does not run it. */
  notHeld: string;
}) {
  const { next } = r;
  return (
    <div className="now">
      <div className="words">
        <div className="side" data-side={step.side}>
          {step.side === "midline" ? "middle" : step.side}
        </div>
        <h2 role="status" aria-live="assertive">
          {whatOf(step)}
        </h2>
        <p className="where">{whereOf(step)}</p>
        <p className="how">{unbroken(step.text ?? "")}</p>
        <p className="quiet">
          {[doseOf(step), step.contact && plain(step.contact), step.position && positionName(step.position)]
            .filter(Boolean)
            .join(" · ")}
        </p>
        {r.away && <p role="alert">This step was left. Go on hands over to the next one.</p>}
        {r.refused && <p role="alert">{r.refused}</p>}
        {notHeld && step.protocol && <p className="quiet">{notHeld}</p>}
        <div className="time">
          <b data-left>{clock(r.leftS)}</b>
          <div className="bar">
            <i style={{ width: `${r.share * 100}%` }} />
          </div>
        </div>
        {next && (
          <p className="next">
            Next: {whatOf(next).toLowerCase()}, {whereOf(next)}
            {next.side === "midline" ? "" : `, ${next.side}`}
            {next.position && next.position !== step.position && ` · turn: ${positionName(next.position)}`}
          </p>
        )}
      </div>
      <StepFigure core={visit.core} step={step} />
    </div>
  );
}

interface StillProps {
  visit: LiveVisit;
  run: Schemas["Run"];
  r: Running;
  emergency: string;
}

/** Nothing runs: before the first step, at the end, or because the client is unwell. */
function Still({ visit, run, r, emergency }: StillProps) {
  const oneSided = visit.state.one_sided ?? [];
  const done = run.steps.filter((s) => s.outcome === "done").length;
  if (visit.state.screen_again)
    return (
      <div className="words" role="alert">
        <h2>The client felt unwell.</h2>
        <p className="how">
          Let them sit up slowly, stay with them, and ask the screening again before anything else is done. If
          it does not pass: {emergency}.
        </p>
      </div>
    );
  return (
    <div className="words">
      <h2>{r.over ? "The sequence is done." : "Ready."}</h2>
      <p className="how">{r.over ? `${done} of ${run.steps.length} steps.` : "It runs by itself."}</p>
      {r.refused && <p role="alert">{r.refused}</p>}
      {r.over && oneSided.length > 0 && <p className="how">One side only: {oneSided.join("; ")}.</p>}
    </div>
  );
}

const signs = [
  { event: "nerve-sign", name: "Nerve sign" },
  { event: "pulse", name: "Pulse" },
  { event: "guard", name: "Guarding" },
  { event: "skin-reaction", name: "Welts, redness" },
  { event: "unwell", name: "Unwell" },
] as const;

interface ControlsProps {
  r: Running;
  stopped: boolean;
  /** What comes when the sequence is done. */
  after: string;
  onMain: () => void;
}

/** The main key is always at the same place; stop is the last. */
function Controls({ r, stopped, after, onMain }: ControlsProps) {
  const runs = r.at > 0 && !stopped;
  return (
    <div className="keys">
      <Key $tone="go" className="main" onPress={onMain}>
        {stopped ? "Back to the visit" : r.over ? after : r.at ? "Next" : "Begin"}
        <kbd>space · pedal</kbd>
      </Key>
      <Key isDisabled={!runs} onPress={r.skip}>
        Skip<kbd>j</kbd>
      </Key>
      <Key isDisabled={!runs} onPress={r.longer}>
        + {longerS} s<kbd>l</kbd>
      </Key>
      <Key isDisabled={!runs || r.at < 2} onPress={r.back}>
        Back<kbd>b</kbd>
      </Key>
      <Key isDisabled={!runs || !r.swap} onPress={() => r.swap?.()}>
        Other side<kbd>o</kbd>
      </Key>
      {signs.map((s) => (
        <Key key={s.event} $tone="warn" isDisabled={!runs} onPress={() => r.sign(s.event)}>
          {s.name}
        </Key>
      ))}
      <Key $tone="stop" isDisabled={!runs} onPress={() => r.sign("client-stop")}>
        Stop<kbd>esc</kbd>
      </Key>
    </div>
  );
}

/** What a session has after a sequence: the first planned hold behind the warm-up, the recheck behind
 * the lengthening, the end behind the closing. */
function useAfter(visit: LiveVisit, run: Schemas["Run"], me: Schemas["Me"]) {
  const go = useNavigate();
  const { first, begin } = useNextHold(visit, me);
  const to = (step: string) => () => go(`/visits/${visit.open.visit.id}?step=${step}`);
  const next = first();
  switch (run.block) {
    case "warm-up":
      return next
        ? { name: "Begin the hold", go: () => void begin(next) }
        : { name: "Go on to pressing", go: to("press") };
    case "lengthen":
      return { name: "Go on to the recheck", go: to("recheck") };
    case "close":
      return { name: "Go on to closing", go: to("close") };
    default:
      return { name: "Back to the visit", go: to("plan") };
  }
}
