// A visit: the body in the same place at every step, the path always visible,
// never a lock.
import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { pairOf, pairs, useFigure, type View, viewName } from "../../body/BodySvg";
import { Blocked } from "../../body/Blocked";
import { fromStrokes } from "../../body/drawing";
import { Figure, type Zone } from "../../body/Figure";
import { Compared, PainBody, PaintedOn } from "../../body/PainBody";
import { brushOf, firstTool } from "../../body/PainTools";
import { fromTheSide, PostureLines } from "../../body/PostureLines";
import { toMark } from "../../body/marks";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Button, Choice, Trouble, Waiting } from "../../parts/controls";
import { CloseStep } from "./CloseStep";
import { DrawStep } from "./DrawStep";
import { Banner, ScreenStep } from "./ScreenStep";
import { SuspectStep, useRanking } from "./SuspectStep";
import { FindStep, type Aim } from "./FindStep";
import { type Feeling, measured, MeasureParts, type Part, parts } from "./MeasureStep";
import { PressStep } from "./PressStep";
import { RecheckStep } from "./RecheckStep";
import { SignSpots, spotAt, toggleSign } from "./Signs";

const Room = styled.div`
  height: 100%; display: grid; grid-template-columns: clamp(520px, 46.25vw, 940px) minmax(0, 1fr); grid-template-rows: auto minmax(0, 1fr); gap: 12px 18px; padding: 12px 22px 16px; min-height: 600px;
  .top { grid-column: 1 / -1; display: flex; align-items: center; gap: 16px; min-width: 0; }
  .top h1 { font-size: 21px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; min-width: 0; flex: 0 1 auto; }
  .path { display: flex; gap: 2px; flex: 1; justify-content: center; }
  .body { background: var(--card); border: 1px solid var(--line-soft); border-radius: 16px; padding: 10px 10px 4px; display: grid; grid-template-rows: auto minmax(0, 1fr); min-height: 0; position: relative; }
  .pair { display: grid; grid-template-columns: 1fr 1fr; grid-template-rows: minmax(0, 1fr); min-height: 0; }
  .panel { overflow: auto; min-height: 0; display: grid; gap: 14px; align-content: start; padding: 2px 4px 16px 2px; }
  .compare { display: grid; grid-template-columns: auto 1fr; gap: 4px 14px; margin: 12px 0 0; } .compare dt { color: var(--ink-soft); } .compare dd { margin: 0; }
  .caution { background: var(--warn-soft); color: var(--warn); border-radius: 10px; padding: 8px 12px; font-weight: 520; }
`;
const Step = styled(Link)<{ $open: boolean }>`
  text-decoration: none; color: var(--ink-soft); padding: 8px 11px; border-radius: 10px; font-weight: 560; display: flex; gap: 7px; align-items: center;
  &[aria-current] { background: var(--accent); color: var(--accent-ink); }
  &::before { content: ""; width: 9px; height: 9px; border-radius: 50%; border: 2px solid currentColor; background: ${(p) => (p.$open ? "transparent" : "currentColor")}; }
`;

const steps = ["draw", "screen", "measure", "suspect", "find", "press", "recheck", "close"] as const;
export type StepName = (typeof steps)[number];
const stepNames: Record<StepName, string> = { draw: "Pain", screen: "Screen", measure: "Measure", suspect: "Suspect", find: "Find", press: "Press", recheck: "Recheck", close: "Close" };

function openSteps(s: Schemas["State"]): Record<StepName, boolean> {
  return {
    draw: s.drawing.length === 0,
    screen: s.screening.missing.length > 0 || !s.consents.some((c) => c.area === "visit" && c.given),
    measure: !s.ranges.some((r) => r.before !== undefined),
    suspect: s.tests.length === 0,
    find: s.points.length === 0,
    press: s.holds.length === 0,
    recheck: !s.points.some((p) => p.after_nprs !== undefined) || s.ranges.some((r) => r.before !== undefined && r.after === undefined),
    close: !s.closed_ms,
  };
}

export default function Visit({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  if (error && !visit) return <div style={{ padding: 24 }}><Trouble error={error} onRetry={retry} /></div>;
  if (!visit) return <Waiting>Opening the visit and the core…</Waiting>;
  return <Opened visit={visit} me={me} />;
}

export interface StepProps {
  visit: LiveVisit;
}

function Opened({ visit, me }: { visit: LiveVisit; me: Schemas["Me"] }) {
  const { open, state, core, write, undo } = visit;
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  // Where to begin is decided once; a step never runs away under the hands.
  const [first] = useState<StepName>(() => steps.find((s) => openSteps(state)[s]) ?? "close");
  const step = (steps as readonly string[]).includes(params.get("step") ?? "") ? (params.get("step") as StepName) : first;
  const part: Part = (parts as readonly string[]).includes(params.get("part") ?? "") ? (params.get("part") as Part) : "range";
  const marking = step === "measure" && part === "signs";
  const [pair, setPair] = useState("Body");
  const [tool, setTool] = useState(firstTool);
  const [compare, setCompare] = useState<string>();
  const [place, setPlace] = useState("");
  const [placing, setPlacing] = useState<string>();
  const [feeling, setFeeling] = useState<Feeling>();
  const [aim, setAim] = useState<Aim>();
  const [selected, setSelected] = useState<string>();
  const height = open.client.height_cm ?? 170;
  useEffect(() => {
    if (!state.opened_ms) write("visit-opened", { reason: open.visit.reason ?? "" });
    // A hold can begin with the network gone, so its screen is fetched now.
    void import("../hold/Hold").catch(() => undefined);
  }, []);
  const live = state.holds.find((h) => h.status === "live");
  const views: View[] = pairs[pair] ?? ["front", "back"];
  const drawing = useMemo(() => fromStrokes(state.drawing), [state.drawing]);
  const before = useMemo(() => {
    const d = open.earlier_drawings.find((x) => x.visit === compare);
    return d && fromStrokes(d.strokes);
  }, [open.earlier_drawings, compare]);
  const { data: figure } = useFigure("front");
  const earlier = useMemo(() => {
    const here = new Set(state.points.map((p) => p.identity));
    const seen = new Set<string>();
    return open.earlier.filter((p) => !here.has(p.identity) && !seen.has(p.identity ?? "") && seen.add(p.identity ?? ""));
  }, [open.earlier, state.points]);
  const shown = state.points.find((p) => p.point === selected);
  const subject = aim?.candidate ?? (shown && { muscle: shown.muscle, side: shown.side, site: shown.site, name: "" });
  const felt = aim ? aim.felt : (shown?.referral ?? []);
  const zones = useMemo(() => {
    const out: Record<string, Zone[]> = {};
    if (!subject) return out;
    const g = core.palpate(subject.muscle, subject.side, height, subject.site || undefined);
    for (const v of views) {
      const usual = core.cells(v, g.referral.essential.map((region) => ({ region, side: subject.side })));
      const own = felt.length ? core.cells(v, felt.map((region) => ({ region, side: subject.side }))) : undefined;
      out[v] = [{ kind: "usual", size: usual.size, cells: usual.cells }, ...(own ? [{ kind: "felt" as const, size: own.size, cells: own.cells }] : [])];
    }
    return out;
  }, [core, subject?.muscle, subject?.side, subject?.site, felt.join(), pair, height]);

  const touch = (view: View) => (p: { x: number; y: number }) => {
    const found = core.under(view, p.x, p.y, height);
    if (step === "screen") {
      // A touch says where: it adds its region to the question being placed.
      const a = state.answers.find((x) => x.question === placing);
      if (a && found.region && !a.regions?.includes(found.region)) {
        const side = a.side && a.side !== found.side ? "midline" : found.side;
        write("screening-answered", { answers: [{ ...a, side, regions: [...(a.regions ?? []), found.region] }] });
      }
      return;
    }
    const reading = step === "measure" && part === "range" && state.ranges.find((r) => r.movement === feeling?.movement && r.side === feeling.side);
    if (reading) {
      if (found.region) write("range-measured", measured(reading, { felt_region: found.region }));
      setFeeling(undefined);
      return;
    }
    if (marking) {
      const spot = spotAt(core, view, p);
      if (spot) toggleSign(visit, spot);
      return;
    }
    setSelected(undefined);
    setAim({ view, ...p, under: found, candidate: found.muscles[0], felt: [] });
    if (step !== "find") setParams({ step: "find" });
  };
  /** Aims at a usual place of a suspect's points, with that muscle under the finger. */
  const site = (s: Schemas["SitePlace"], suspect: { muscle: string; side: string }) => {
    const view = s.view as View;
    const under = core.under(view, s.x, s.y, height);
    setPair(pairOf(view));
    setAim({ view, x: s.x, y: s.y, under, candidate: under.muscles.find((m) => m.muscle === suspect.muscle && m.side === suspect.side) ?? under.muscles[0], felt: [] });
  };
  const drop = (pid: string, p: { x: number; y: number }, view: View) => {
    const old = state.points.find((x) => x.point === pid);
    if (!old) return;
    const c = core.under(view, p.x, p.y, height).muscles.find((m) => m.muscle === old.muscle && m.side === old.side);
    if (c) write("point-moved", { point: pid, figure: old.figure, view, x: p.x, y: p.y, place: c.place });
  };
  const ranking = useRanking({ visit });
  const [chosen, setChosen] = useState<{ muscle: string; side: string }>();
  // The suspect laid on the body: the chosen or likeliest one, and the chosen
  // one again where it is to be found.
  const top = ranking.suspects[0];
  const laid = step === "suspect" ? (chosen ?? (top && top.confidence > 0.1 ? top : undefined)) : step === "find" && !aim && !selected ? chosen : undefined;
  const suspected = useMemo(() => {
    const on = (view: View) => laid && core.layers({ view, layers: ["muscles", "referral"], only: [laid.muscle], side: laid.side } as Schemas["Wanted"]);
    return new Map(views.map((v) => [v, on(v)]));
  }, [core, pair, laid?.muscle, laid?.side]);
  const todo = openSteps(state);
  return (
    <Room>
      <div className="top">
        <h1><Link to={`/clients/${open.client.id}`} style={{ color: "inherit", textDecoration: "none" }}>{open.client.given_name} {open.client.family_name}</Link></h1>
        <nav className="path" aria-label="Steps of the visit">
          {steps.map((s) => <Step key={s} $open={todo[s]} to={`?step=${s}`} aria-current={step === s ? "step" : undefined} aria-label={`${stepNames[s]}${todo[s] ? ", open" : ", done"}`}>{stepNames[s]}</Step>)}
        </nav>
        <Link to={`/visits/${open.visit.id}/show`} style={{ whiteSpace: "nowrap" }}>Show the client</Link>
        <Button isDisabled={!undo} onPress={undo}>Undo</Button>
      </div>
      <div className="body">
        <div style={{ display: "flex", justifyContent: "space-between", alignItems: "center", minHeight: 40, flexDirection: "row-reverse", gap: 8 }}>
          <span className="quiet" style={{ fontSize: 13, padding: "2px 6px 2px 10px", flex: 1, minWidth: 0 }}>
            {step === "draw" ? <span aria-live="polite">{before ? "Dashed: gone. Full: new. Pale: both." : place || "Paint by finger or mouse; arrow keys and Space work too."}</span> : feeling && step === "measure" ? "Touch the body where it is felt." : marking ? "Touch a lozenge where you see the sign." : step === "measure" && part === "posture" && pair !== "Sides" && state.posture.some((x) => fromTheSide.includes(x.measure)) ? "Forward head and pelvic tilt are drawn under Sides." : step === "screen" ? (placing ? "Touch the body where it is." : "Hatched: no pressure here.") : step === "suspect" ? "The pain drawing, and the chosen suspect with its usual pattern." : step === "find" ? (chosen && !aim ? "The suspect and its usual pattern: touch where the band is." : "Touch the place, or aim with the arrow keys.") : subject ? "Dots: usual referral, a guide. Strokes: this client's." : ""}
          </span>
          <Choice label="View" quiet value={pair} options={Object.keys(pairs)} onChoose={setPair} />
        </div>
        <div className="pair">
          {step === "draw" && views.map((v) => before ? (
            <Figure key={v} view={v} label={`${viewName[v]}: two drawings laid over each other`} inside={<Compared view={v} before={before} after={drawing} />}><Blocked core={core} view={v} places={state.screening.blocked} /></Figure>
          ) : (
            <PainBody key={v} view={v} drawing={drawing} brush={brushOf(tool)} size={tool.size} onPlace={setPlace}
              onStroke={(cells) => write("drawing-painted", { figure: figure?.version, strokes: [{ ...brushOf(tool), cells }], by: "therapist" })}><Blocked core={core} view={v} places={state.screening.blocked} /></PainBody>
          ))}
          {step !== "draw" && views.map((v) => (
            <Figure key={v} view={v} selected={selected} zones={zones[v]} drawn={suspected.get(v)} inside={step === "suspect" && <PaintedOn view={v} drawing={drawing} />}
              marks={step === "screen" || (step === "measure" && part !== "range") ? [] : [...earlier.filter((p) => p.view === v).map((p) => toMark(p, true)), ...state.points.filter((p) => p.view === v).map((p) => toMark(p))]}
              cursor={aim?.view === v ? aim : undefined}
              onTouch={touch(v)} onAim={(p) => { setAim({ view: v, ...p, felt: [] }); }}
              onSelect={(pid) => {
                const old = earlier.find((p) => p.point === pid);
                if (old) {
                  touch(v)({ x: old.x, y: old.y });
                  return;
                }
                setAim(undefined);
                setSelected(pid);
              }}
              onDrop={(pid, p) => drop(pid, p, v)}
              label={`${viewName[v]} of the body. Arrow keys move the aim, Enter marks. ${state.points.filter((p) => p.view === v).length} points.`}>
              {marking && <SignSpots core={core} view={v} state={state} />}
              {step === "measure" && !marking && <PostureLines view={v} posture={state.posture} flags={state.posture_flags} />}
              <Blocked core={core} view={v} places={state.screening.blocked} />
            </Figure>
          ))}
        </div>
      </div>
      <div className="panel">
        {live && (
          <div className="caution" role="alert" style={{ display: "flex", gap: 12, alignItems: "center" }}>
            <span style={{ flex: 1 }}>A hold is not finished.</span>
            <Button onPress={() => write("hold-ended", { hold: live.id, outcome: live.summary.outcome, pressure_ms: Math.round(live.summary.pressure_s * 1000), stages: live.summary.stages.length })}>End it where its log ends</Button>
            <Button $kind="main" onPress={() => go(`/visits/${open.visit.id}/hold/${live.id}`)}>Go on with it</Button>
          </div>
        )}
        <Banner visit={visit} />
        {open.client.cautions?.map((c) => <div key={c} className="caution" role="note">{c}</div>)}
        {state.conflicts.map((c) => <div key={c.key} className="caution" role="alert">{c.text} The later one is shown; set it again to settle it.</div>)}
        {state.aside.map((a) => <div key={a.event} className="caution" role="note">Kept aside ({a.type.replaceAll("-", " ")}): {a.reason}</div>)}
        {state.holds.filter((h) => h.status === "aside").map((h) => <div key={h.id} className="caution" role="note">A hold is kept aside and counts nowhere: {h.why}</div>)}
        {step === "draw" && <DrawStep visit={visit} me={me} drawing={drawing} figure={figure?.version ?? ""} tool={tool} setTool={setTool} compare={compare} setCompare={setCompare} height={height} />}
        {step === "screen" && <ScreenStep visit={visit} placing={placing} setPlacing={setPlacing} />}
        {step === "measure" && <MeasureParts visit={visit} part={part} onPart={(p) => setParams({ step: "measure", part: p })} feeling={feeling} setFeeling={setFeeling} />}
        {step === "suspect" && <SuspectStep visit={visit} ranking={ranking} chosen={chosen} setChosen={setChosen} height={height} onFind={(c) => { setChosen(c); setParams({ step: "find" }); }} />}
        {step === "find" && <FindStep visit={visit} aim={aim} setAim={setAim} selected={selected} setSelected={setSelected} height={height} finger={me.finger_cm} suspect={chosen} onSite={site} />}
        {step === "press" && <PressStep visit={visit} me={me} selected={selected} setSelected={setSelected} height={height} />}
        {step === "recheck" && <RecheckStep visit={visit} />}
        {step === "close" && <CloseStep visit={visit} me={me} />}
      </div>
    </Room>
  );
}
