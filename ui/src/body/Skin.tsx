// The body itself: its shapes, softly rounded, and the light inner lines.
import { memo } from "react";
import type { Schemas } from "../api/client";
import { useShade } from "./shade";

type Drawing = Schemas["FigureView"];

/** id-skin is the clip path of the whole body, for what is drawn inside it. */
export const Skin = memo(function Skin({
  figure,
  id,
  shade,
}: {
  figure: Drawing;
  id: string;
  shade: number;
}) {
  return (
    <>
      <defs>
        <clipPath id={`${id}-skin`}>
          <Shapes of={figure.shapes} />
        </clipPath>
      </defs>
      <g>
        {[0, 1].map((layer) => (
          <Layer key={layer} figure={figure} layer={layer} id={id} blur={7 * shade} />
        ))}
      </g>
    </>
  );
});

/** The body as one flat shape. */
export const Outline = ({ figure }: { figure: Drawing }) => (
  <g fill="var(--skin)" stroke="var(--skin-edge)" strokeWidth={6}>
    <Shapes of={figure.shapes} />
  </g>
);

/** Line: how wide on screen, however close. */
const Shapes = ({ of, line }: { of: Drawing["shapes"]; line?: number }) =>
  of.map((s) => (
    <path
      key={s.id + s.side}
      d={s.path}
      strokeWidth={line}
      vectorEffect={line ? "non-scaling-stroke" : undefined}
    />
  ));

/** What hangs before the trunk lets it be seen. */
const before = 0.7;

interface LayerProps {
  figure: Drawing;
  layer: number;
  id: string;
  /** Of the shade along the edge, in view units. */
  blur: number;
}

function Layer({ figure, layer, id, blur }: LayerProps) {
  const edge = useShade(figure, layer, blur);
  const shapes = figure.shapes.filter((s) => (s.layer ?? 0) === layer);
  const inner = figure.inner.filter((l) => (l.layer ?? 0) === layer);
  const shades = figure.shades.filter((s) => (s.layer ?? 0) === layer);
  return (
    <g aria-hidden opacity={layer ? before : undefined}>
      <g fill="none" stroke="var(--skin-edge)" strokeLinejoin="round">
        <Shapes of={shapes} line={1.7} />
      </g>
      <g fill="var(--skin)" data-skin>
        <Shapes of={shapes} />
      </g>
      {edge && (
        <>
          <clipPath id={`${id}-layer${layer}`}>
            <Shapes of={shapes} />
          </clipPath>
          <image {...edge} preserveAspectRatio="none" clipPath={`url(#${id}-layer${layer})`} />
        </>
      )}
      <g fill="var(--skin-shade)" fillOpacity={0.06} clipPath={`url(#${id}-skin)`}>
        {shades.map((s) => (
          <path key={s.path} d={s.path} />
        ))}
      </g>
      <g fill="none" stroke="var(--skin-line)" strokeLinecap="round">
        {inner.map((l, i) => (
          <path
            key={`${l.id}${i}`}
            d={l.path}
            vectorEffect="non-scaling-stroke"
            strokeWidth={0.5 + 0.6 * l.weight}
            opacity={0.25 + 0.55 * l.weight}
          />
        ))}
      </g>
    </g>
  );
}
