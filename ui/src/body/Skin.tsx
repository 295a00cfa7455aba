// The body itself: its shapes, softly rounded, and the light inner lines.
import { memo } from "react";
import type { Schemas } from "../api/client";

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
        <Rounded id={`${id}-round`} k={shade} />
        <clipPath id={`${id}-skin`}>
          <Shapes of={figure.shapes} />
        </clipPath>
      </defs>
      <g data-skin>
        {[0, 1].map((layer) => (
          <Layer key={layer} figure={figure} layer={layer} id={id} />
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

/** A shade along the edge, inside. */
function Rounded({ id, k }: { id: string; k: number }) {
  return (
    <filter id={id} x="-5%" y="-5%" width="110%" height="110%">
      <feComponentTransfer in="SourceAlpha">
        <feFuncA type="table" tableValues="1 0" />
      </feComponentTransfer>
      <feGaussianBlur stdDeviation={7 * k} result="edge" />
      <feFlood floodColor="var(--skin-shade)" floodOpacity="0.75" />
      <feComposite in2="edge" operator="in" />
      <feComposite in2="SourceAlpha" operator="in" />
      <feMerge>
        <feMergeNode in="SourceGraphic" />
        <feMergeNode />
      </feMerge>
    </filter>
  );
}

/** What hangs before the trunk lets it be seen. */
const before = 0.7;

function Layer({ figure, layer, id }: { figure: Drawing; layer: number; id: string }) {
  const shapes = figure.shapes.filter((s) => (s.layer ?? 0) === layer);
  const inner = figure.inner.filter((l) => (l.layer ?? 0) === layer);
  const shades = figure.shades.filter((s) => (s.layer ?? 0) === layer);
  return (
    <g aria-hidden opacity={layer ? before : undefined}>
      <g fill="none" stroke="var(--skin-edge)" strokeLinejoin="round">
        <Shapes of={shapes} line={1.7} />
      </g>
      <g fill="var(--skin)" filter={`url(#${id}-round)`}>
        <Shapes of={shapes} />
      </g>
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
