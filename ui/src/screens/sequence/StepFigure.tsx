// Where a step is done: the body in the view that shows it, the region or the muscle lit.
import { useMemo } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { BodySvg } from "../../body/BodySvg";
import { PosePicture } from "../../body/PosePicture";
import type { View } from "../../body/views";
import type { Core } from "../../core/core";
import { useAsk, useAskAll } from "../../core/useAsk";

const Frame = styled.div`
  min-height: 0;
  height: 100%;
  svg {
    display: block;
    width: 100%;
    height: 100%;
  }
  .lit {
    fill: var(--accent);
    fill-opacity: 0.75;
  }
`;

type Step = Pick<Schemas["StepRun"], "where" | "side" | "technique" | "position">;
const looked: View[] = ["back", "front", "sole-left", "sole-right", "head-left", "head-right"];

export function StepFigure({ core, step }: { core: Core; step: Step }) {
  const [name = ""] = step.where.split(":");
  const muscle = core.lists.muscles.find((m) => m.id === name)?.id;
  return muscle ? (
    <OfMuscle key={step.technique + muscle + step.side} core={core} muscle={muscle} step={step} />
  ) : (
    <OfRegion core={core} region={name as Schemas["RegionID"]} side={step.side} />
  );
}

/** The muscle lit; where the step moves a joint, how it lies at the end of the movement. */
function OfMuscle({ core, muscle, step }: { core: Core; muscle: Schemas["MuscleID"]; step: Step }) {
  const { side, technique, position: lies } = step;
  const posed = useAsk(core, "position", { muscle, side, lies, technique });
  const view = useAsk(core, "views", { muscle, side })?.views[0];
  const drawn = useAsk(core, "layers", view && { view, layers: ["muscles"], only: [muscle], side });
  return (
    <Frame data-posed={!!posed}>
      {posed ? (
        <PosePicture d={posed} label="Where the movement ends" />
      ) : (
        view && <BodySvg view={view} drawn={drawn} aria-hidden />
      )}
    </Frame>
  );
}

function OfRegion({
  core,
  region,
  side,
}: {
  core: Core;
  region: Schemas["RegionID"];
  side: Schemas["Side"];
}) {
  const cells = useAskAll(
    core,
    "cells",
    useMemo(
      () => Object.fromEntries(looked.map((view) => [view, { view, regions: [{ region, side }] }])),
      [region, side],
    ),
  );
  const view = looked.find((v) => cells?.[v]?.cells.length);
  const of = view && cells?.[view];
  return (
    <Frame>
      {view && of && (
        <BodySvg view={view} aria-hidden>
          <g className="lit">
            {of.cells.map(([x, y]) => (
              <circle key={`${x},${y}`} cx={x} cy={y} r={of.size * 0.55} />
            ))}
          </g>
        </BodySvg>
      )}
    </Frame>
  );
}
