// The drawing of one view, with the layers that are wanted on it. Everything
// drawn here comes from the core; what is touched is the caller's.
import { type ReactNode, type SVGProps, useId } from "react";
import type { Schemas } from "../api/client";
import { Layers } from "./Layers";
import { Skin } from "./Skin";
import { scaleOf, useFigure, type View } from "./views";

export interface BodyProps extends Omit<SVGProps<SVGSVGElement>, "ref" | "viewBox"> {
  view: View;
  svg?: React.Ref<SVGSVGElement>;
  drawn?: Schemas["ViewLayers"];
  /** A muscle, structure or landmark to bring out. */
  bright?: string;
  /** Part of the view, in view units: x, y, width, height. */
  window?: [number, number, number, number];
  /** Drawn on the skin and cut off at its edge, below everything else. */
  inside?: ReactNode;
  children?: ReactNode;
}

export function BodySvg({ view, svg, drawn, bright, window: part, inside, children, ...rest }: BodyProps) {
  const { data } = useFigure(view);
  const id = useId();
  if (!data) return <svg viewBox="0 0 480 1000" aria-busy />;
  return (
    <svg
      ref={svg}
      viewBox={part ? part.join(" ") : `-6 -8 ${data.width + 12} 1016`}
      data-view={view}
      {...rest}
    >
      <Skin figure={data} id={id} shade={scaleOf(view)} />
      {inside && <g clipPath={`url(#${id}-skin)`}>{inside}</g>}
      {drawn && <Layers drawn={drawn} view={view} bright={bright} clip={`url(#${id}-skin)`} />}
      {children}
    </svg>
  );
}
