// What a page of the help shows of the body: one muscle of the neck, the same on each page,
// or how a movement is measured.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { BodySvg } from "../../body/BodySvg";
import { MeasuredPose } from "../../body/MeasuredPose";
import { Closeness } from "../../body/zoom";
import type { Core, Input } from "../../core/core";
import { useAsk } from "../../core/useAsk";
import { useCore } from "../../core/useCore";
import { phone } from "../../theme";
import type { HelpDrawing } from "./pages";

const Figure = styled.figure`
  margin: 0;
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: var(--s3);
  align-items: end;
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
  }
  > div {
    height: 240px;
    border: 1px solid var(--line-soft);
    border-radius: var(--r1);
    overflow: hidden;
  }
  > div > svg {
    display: block;
    width: 100%;
    height: 100%;
  }
  @media print {
    break-inside: avoid;
  }
`;

export function Drawing({ d }: { d: HelpDrawing }) {
  const { core } = useCore();
  return (
    <Figure data-drawing={d.movement ?? d.layers.join(" ")}>
      <div>{core && (d.movement ? <OfMovement core={core} {...d} /> : <OfMuscle core={core} {...d} />)}</div>
      <figcaption className="quiet small">{d.caption}</figcaption>
    </Figure>
  );
}

const muscle = "levator-scapulae";
const side = "right";
const view = "back";
/** The right half of neck and shoulder, in the view's units, and the whole body beside it. */
const near: [number, number, number, number] = [205, 95, 150, 120];
const closeness = 1.6;

function OfMuscle({ core, layers }: { core: Core; layers: Input<"layers">["layers"] }) {
  const drawn = useAsk(core, "layers", { view, layers, only: [muscle], side });
  return (
    <Closeness value={closeness}>
      <BodySvg view={view} window={near} drawn={drawn} aria-hidden preserveAspectRatio="xMidYMid slice" />
    </Closeness>
  );
}

function OfMovement({
  core,
  movement,
  caption,
}: {
  core: Core;
  movement: Schemas["MovementID"];
  caption: string;
}) {
  const drawing = useAsk(core, "pose", { movement, side });
  const usual = useAsk(core, "range", { movement });
  if (!drawing || !usual) return null;
  return (
    <MeasuredPose
      drawing={drawing}
      angles={{ usual: usual.reference, short: usual.flag_below }}
      tool="inclinometer"
      label={caption}
    />
  );
}
