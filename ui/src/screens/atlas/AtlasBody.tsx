// The body of the atlas with its layers, touched to find a muscle or a place.
import type { Schemas } from "../../api/client";
import { BodyViews } from "../../body/BodyViews";
import { Figure } from "../../body/Figure";
import { type View, viewName } from "../../body/views";
import type { Core } from "../../core/core";
import { useAsk } from "../../core/useAsk";
import { Choices } from "../../parts/controls";
import { Slide } from "../../parts/Slide";
import { plain } from "../../parts/words";
import { muscleOn, svgOf, useDrawnOn, useMarksOn } from "./drawn";
import { depthName, layerNames } from "./modes";
import type { AtlasView } from "./useAtlas";

interface Props {
  atlas: AtlasView;
  /** The practice's own sites of the muscle. */
  sites: Schemas["OwnSite"][];
}

export function AtlasBody({ atlas: a, sites }: Props) {
  const touched = a.mode === "By pain" ? "Touch where it hurts" : "Touch a muscle";
  return (
    <div className="body">
      <div className="tools">
        {a.layers.includes("muscles") && (
          <Slide label="Depth" min={1} max={4} value={a.depth} onSlide={a.setDepth} describe={depthName} />
        )}
        <Choices
          label="Layers"
          quiet
          values={a.layers}
          options={layerNames}
          onChange={a.setLayers}
          describe={plain}
        />
      </div>
      <BodyViews main={a.main}>
        {(v) => <OneView key={v} view={v} atlas={a} sites={sites} touched={touched} />}
      </BodyViews>
    </div>
  );
}

function OneView({ view: v, atlas: a, sites, touched }: Props & { view: View; touched: string }) {
  const { drawn, fit } = useDrawnOn(a, v);
  return (
    <Figure
      view={v}
      drawn={drawn}
      fit={fit}
      bright={a.mode === "Keep off" ? a.keep : a.guide?.muscle}
      marks={useMarksOn(a, sites, v)}
      cursor={a.spot?.view === v ? a.spot : undefined}
      caption={
        <>
          {viewName[v]} ·{" "}
          <a href={svgOf(a, v)} download>
            SVG
          </a>
        </>
      }
      onTouch={(p) => a.touch(v, p)}
      onAim={(p) => a.setSpot({ view: v, ...p })}
      label={`${viewName[v]} of the body. ${touched}, or aim with the arrow keys and press Enter.`}
    >
      {a.second && <Second core={a.core} view={v} side={a.side} muscle={a.second.muscle} />}
    </Figure>
  );
}

interface SecondProps {
  core: Core;
  view: View;
  side: Schemas["Side"];
  muscle: Schemas["MuscleID"];
}

/** The other muscle of a comparison: hollow rings against the first one's dots. */
function Second({ core, view, side, muscle }: SecondProps) {
  const d = useAsk(core, "layers", muscleOn(view, muscle, side));
  if (!d) return null;
  return (
    <g aria-hidden fill="none" stroke="var(--other)">
      {d.strands.map((s) => (
        <path
          key={s.belly}
          d={s.belly}
          strokeWidth={1.6}
          strokeDasharray="6 3"
          fill="var(--other)"
          fillOpacity={0.18}
        />
      ))}
      {d.zones.map((z) => (
        <g key={z.muscle} strokeWidth={z.size * 0.12}>
          {z.essential.map(([x, y]) => (
            <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.38} />
          ))}
          {z.spillover.map(([x, y]) => (
            <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.2} />
          ))}
        </g>
      ))}
    </g>
  );
}
