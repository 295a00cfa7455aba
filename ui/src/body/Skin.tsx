// The body itself: its shapes, softly rounded, and the light inner lines.
import { memo } from "react";
import type { Schemas } from "../api/client";
import { useShade } from "./shade";
import { type LayerMarkup, skinMarkup } from "./skinMarkup";

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
  const { whole, layers } = skinMarkup(figure);
  return (
    <>
      <defs>
        <clipPath id={`${id}-skin`} dangerouslySetInnerHTML={whole} />
      </defs>
      <g>
        {layers.map((markup, n) => (
          <Layer key={n} figure={figure} layer={n} markup={markup} id={id} blur={7 * shade} />
        ))}
      </g>
    </>
  );
});

/** The body as one flat shape. */
export const Outline = ({ figure }: { figure: Drawing }) => (
  <g
    fill="var(--skin)"
    stroke="var(--skin-edge)"
    strokeWidth={6}
    dangerouslySetInnerHTML={skinMarkup(figure).whole}
  />
);

/** What hangs before the trunk lets it be seen. */
const before = 0.7;

interface LayerProps {
  figure: Drawing;
  layer: number;
  markup: LayerMarkup;
  id: string;
  /** Of the shade along the edge, in view units. */
  blur: number;
}

function Layer({ figure, layer, markup, id, blur }: LayerProps) {
  const edge = useShade(figure, layer, blur);
  return (
    <g aria-hidden opacity={layer ? before : undefined}>
      <g
        fill="none"
        stroke="var(--skin-edge)"
        strokeLinejoin="round"
        dangerouslySetInnerHTML={markup.lines}
      />
      <g fill="var(--skin)" data-skin dangerouslySetInnerHTML={markup.areas} />
      {edge && (
        <>
          <clipPath id={`${id}-layer${layer}`} dangerouslySetInnerHTML={markup.areas} />
          <image {...edge} preserveAspectRatio="none" clipPath={`url(#${id}-layer${layer})`} />
        </>
      )}
      <g
        fill="var(--skin-shade)"
        fillOpacity={0.06}
        clipPath={`url(#${id}-skin)`}
        dangerouslySetInnerHTML={markup.shades}
      />
      <g fill="none" stroke="var(--skin-line)" strokeLinecap="round" dangerouslySetInnerHTML={markup.inner} />
    </g>
  );
}
