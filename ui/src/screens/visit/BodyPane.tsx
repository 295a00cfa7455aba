// The body: the workspace, in the same place at every step.
import { useState } from "react";
import { styled } from "styled-components";
import { Blocked } from "../../body/Blocked";
import { pairs, useFigure, viewName } from "../../body/BodySvg";
import { Figure } from "../../body/Figure";
import { Compared, PainBody, PaintedOn } from "../../body/PainBody";
import { brushOf } from "../../body/PainTools";
import { fromTheSide, PostureLines } from "../../body/PostureLines";
import { Choice } from "../../parts/controls";
import { SignSpots } from "./Signs";
import type { Path } from "./steps";
import type { Body } from "./useBody";
import type { StepProps } from "./Visit";

const Pane = styled.div`
  background: var(--card);
  border: 1px solid var(--line-soft);
  border-radius: 16px;
  padding: 10px 10px 4px;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  position: relative;
  .head {
    display: flex;
    flex-direction: row-reverse;
    align-items: center;
    min-height: 40px;
    gap: 8px;
  }
  .hint {
    font-size: 13px;
    padding: 2px 6px 2px 10px;
    flex: 1;
    min-width: 0;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    grid-template-rows: minmax(0, 1fr);
    min-height: 0;
  }
`;

/** What a touch would do now, or what is drawn. */
function hint({ state }: StepProps["visit"], { step, part }: Path, b: Body, place: string): string {
  switch (step) {
    case "draw":
      return b.before
        ? "Dashed: gone. Full: new. Pale: both."
        : place || "Paint by finger or mouse; arrow keys and Space work too.";
    case "screen":
      return b.placing ? "Touch the body where it is." : "Hatched: no pressure here.";
    case "suspect":
      return "The pain drawing, and the chosen suspect with its usual pattern.";
    case "find":
      return b.chosen && !b.aim
        ? "The suspect and its usual pattern: touch where the band is."
        : "Touch the place, or aim with the arrow keys.";
    case "measure":
      if (b.feeling) return "Touch the body where it is felt.";
      if (b.marking) return "Touch a lozenge where you see the sign.";
      if (
        part === "posture" &&
        b.pair !== "Sides" &&
        state.posture.some((x) => fromTheSide.includes(x.measure))
      )
        return "Forward head and pelvic tilt are drawn under Sides.";
  }
  return b.subject ? "Dots: usual referral, a guide. Strokes: this client's." : "";
}

export function BodyPane({ visit, path, body: b }: StepProps & { path: Path; body: Body }) {
  const { state, core, write } = visit;
  const { step } = path;
  const [place, setPlace] = useState("");
  const { data: figure } = useFigure("front");
  return (
    <Pane>
      <div className="head">
        <span className="hint quiet" aria-live={step === "draw" ? "polite" : undefined}>
          {hint(visit, path, b, place)}
        </span>
        <Choice label="View" quiet value={b.pair} options={Object.keys(pairs)} onChoose={b.setPair} />
      </div>
      <div className="pair">
        {b.views.map((v) => {
          const blocked = <Blocked core={core} view={v} places={state.screening.blocked} />;
          if (step === "draw") {
            return b.before ? (
              <Figure
                key={v}
                view={v}
                label={`${viewName[v]}: two drawings laid over each other`}
                inside={<Compared view={v} before={b.before} after={b.drawing} />}
              >
                {blocked}
              </Figure>
            ) : (
              <PainBody
                key={v}
                view={v}
                drawing={b.drawing}
                brush={brushOf(b.tool)}
                size={b.tool.size}
                onPlace={setPlace}
                onStroke={(cells) =>
                  write("drawing-painted", {
                    figure: figure?.version,
                    strokes: [{ ...brushOf(b.tool), cells }],
                    by: "therapist",
                  })
                }
              >
                {blocked}
              </PainBody>
            );
          }
          return (
            <Figure
              key={v}
              view={v}
              selected={b.selected}
              zones={b.zones[v]}
              drawn={b.suspected.get(v)}
              inside={step === "suspect" && <PaintedOn view={v} drawing={b.drawing} />}
              marks={b.marksOn(v)}
              cursor={b.aim?.view === v ? b.aim : undefined}
              onTouch={(p) => b.touch(v, p)}
              onAim={(p) => b.setAim({ view: v, ...p, felt: [] })}
              onSelect={(point) => b.select(v, point)}
              onDrop={(point, p) => b.drop(v, point, p)}
              label={`${viewName[v]} of the body. Arrow keys move the aim, Enter marks. ${state.points.filter((p) => p.view === v).length} points.`}
            >
              {b.marking && <SignSpots core={core} view={v} state={state} />}
              {step === "measure" && !b.marking && (
                <PostureLines view={v} posture={state.posture} flags={state.posture_flags} />
              )}
              {blocked}
            </Figure>
          );
        })}
      </div>
    </Pane>
  );
}
