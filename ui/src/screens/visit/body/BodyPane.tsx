// The body: the workspace, in the same place at every step.
import { useState } from "react";
import { styled } from "styled-components";
import { Blocked } from "../../../body/Blocked";
import { BodyFrame } from "../../../body/BodyFrame";
import { BodySvg } from "../../../body/BodySvg";
import { BodyViews } from "../../../body/BodyViews";
import { Figure } from "../../../body/Figure";
import { Compared } from "../../../body/Compared";
import { PainBody } from "../../../body/PainBody";
import { PaintedOn } from "../../../body/Painted";
import { brushOf } from "../../../body/PainTools";
import { PostureLines } from "../../../body/PostureLines";
import { Ties } from "../../../body/Ties";
import { useFigure, type View, viewName } from "../../../body/views";
import { Columns } from "../../../parts/layout";
import { HowMeasured } from "../measure/HowMeasured";
import { LinesOnBody } from "../posture/LinesOnBody";
import { SignSpots } from "../signs/SignSpots";
import type { StepProps } from "../StepProps";
import type { Path } from "../steps";
import { hint } from "./hint";
import { feltPaint } from "./useAnswer";
import type { Body } from "./useBody";

const Pane = styled.div`
  background: var(--card);
  border: 1px solid var(--line-soft);
  border-radius: var(--r2);
  padding: 6px 10px 2px;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  position: relative;
  .hint {
    font-size: var(--t1);
    padding: 2px 2px 6px;
    min-height: 28px;
  }
`;

/** The body that is known already, while the visit is still being opened. */
export function OpeningPane({ views }: { views: View[] }) {
  return (
    <Pane>
      <p className="hint quiet" />
      <Known views={views} />
    </Pane>
  );
}

/** Views of the body with nothing on them. */
function Known({ views }: { views: View[] }) {
  return (
    <Columns $cols={`56px repeat(${views.length}, minmax(0, 1fr))`} $gap={2}>
      <span />
      {views.map((v) => (
        <BodyFrame key={v}>
          <BodySvg view={v} />
          <figcaption>{viewName[v]}</figcaption>
        </BodyFrame>
      ))}
    </Columns>
  );
}

interface Props extends StepProps {
  path: Path;
  body: Body;
}

export function BodyPane({ visit, path, body }: Props) {
  const [place, setPlace] = useState("");
  return (
    <Pane>
      <p className="hint quiet" aria-live={path.step === "draw" ? "polite" : undefined}>
        {hint(visit.state, path, body, place)}
      </p>
      {path.step === "measure" && path.part === "range" && !body.placing.feeling && body.placing.measuring ? (
        <HowMeasured visit={visit} measuring={body.placing.measuring} />
      ) : !body.main.chosen ? (
        // What lies on it is drawn when the core has said which views the work wants.
        <Known views={body.main.views} />
      ) : (
        <BodyViews main={body.main} marks={body.marksOn} drawing={body.painting.drawing}>
          {(v) =>
            path.step === "draw" ? (
              <Painted key={v} view={v} visit={visit} body={body} onPlace={setPlace} />
            ) : path.step === "find" && body.answering.saying === "paint" ? (
              <Felt key={v} view={v} body={body} onPlace={setPlace} />
            ) : (
              <Charted key={v} view={v} visit={visit} path={path} body={body} />
            )
          }
        </BodyViews>
      )}
    </Pane>
  );
}

/** Where the client feels a point, being painted. */
function Felt({ view, body, onPlace }: { view: View; body: Body; onPlace: (place: string) => void }) {
  const { drawing, stroke } = body.answering;
  return (
    <PainBody view={view} drawing={drawing} brush={feltPaint} size={1} onPlace={onPlace} onStroke={stroke} />
  );
}

interface PaintedProps extends StepProps {
  view: View;
  body: Body;
  onPlace: (place: string) => void;
}

/** The pain drawing, painted on or laid over an earlier one. */
function Painted({ view, visit, body, onPlace }: PaintedProps) {
  const { tool, drawing, before } = body.painting;
  const { data: figure } = useFigure("front");
  const blocked = <Blocked core={visit.core} view={view} places={visit.state.screening.blocked} />;
  if (before) {
    return (
      <Figure
        view={view}
        label={`${viewName[view]}: two drawings laid over each other`}
        inside={<Compared view={view} before={before} after={drawing} />}
      >
        {blocked}
      </Figure>
    );
  }
  return (
    <PainBody
      view={view}
      drawing={drawing}
      brush={brushOf(tool)}
      size={tool.size}
      onPlace={onPlace}
      onStroke={(cells) =>
        figure &&
        visit.write("drawing-painted", {
          figure: figure.version,
          strokes: [{ ...brushOf(tool), cells }],
          by: "therapist",
        })
      }
    >
      {blocked}
    </PainBody>
  );
}

/** Posture as it was read; where it is read now, with the lines that a touch chooses. */
function MeasuredPosture({ visit, view, path, body }: Props & { view: View }) {
  const { state } = visit;
  if (path.part === "posture") return <LinesOnBody visit={visit} view={view} chosen={body.placing.posture} />;
  return <PostureLines view={view} posture={state.posture} flags={state.posture_flags} />;
}

/** The body with points, referral, signs and posture, as the step needs them. */
function Charted({ view: v, visit, path, body: b }: Props & { view: View }) {
  const { state, core } = visit;
  const points = state.points.filter((p) => p.view === v).length;
  return (
    <Figure
      view={v}
      selected={b.selected}
      zones={b.zones[v]}
      fit={b.fits.get(v)}
      drawn={b.suspected.get(v)}
      inside={
        path.step === "suspect" ? (
          <PaintedOn view={v} drawing={b.painting.drawing} />
        ) : (
          path.step === "find" && <PaintedOn view={v} drawing={b.answering.drawing} />
        )
      }
      marks={b.marksOn(v)}
      over={<Ties ties={b.tiesOn(v)} view={v} />}
      cursor={b.aim?.view === v ? b.aim : undefined}
      onTouch={(p) => b.touch(v, p)}
      onAim={(p) => b.setAim({ view: v, ...p })}
      onSelect={(point) => b.select(v, point)}
      onDrop={(point, p) => b.drop(v, point, p)}
      label={`${viewName[v]} of the body. Arrow keys move the aim, Enter marks. ${points} points.`}
    >
      {b.marking && <SignSpots core={core} view={v} state={state} />}
      {path.step === "measure" && !b.marking && (
        <MeasuredPosture visit={visit} view={v} path={path} body={b} />
      )}
      <Blocked core={core} view={v} places={state.screening.blocked} />
    </Figure>
  );
}
