// The drawing of one view, with the layers that are wanted on it. Everything
// drawn here comes from the core; what is touched is the caller's.
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, type SVGProps, useId } from "react";
import { api, must, type Schemas } from "../api/client";

export type View =
  "front" | "back" | "left" | "right" | "head-left" | "head-right" | "sole-left" | "sole-right";
export const viewName: Record<View, string> = {
  front: "Front",
  back: "Back",
  left: "Left side",
  right: "Right side",
  "head-left": "Head, left",
  "head-right": "Head, right",
  "sole-left": "Left sole",
  "sole-right": "Right sole",
};

/** The views in pairs, as they are looked at. */
export const pairs: Record<string, [View, View]> = {
  Body: ["front", "back"],
  Sides: ["left", "right"],
  Head: ["head-left", "head-right"],
  Soles: ["sole-left", "sole-right"],
};
export const pairOf = (v: View) => Object.keys(pairs).find((k) => pairs[k]?.includes(v)) ?? "Body";

export function useFigure(view: View) {
  return useQuery({
    queryKey: ["figure", view],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.GET("/api/figure/{view}", { params: { path: { view } } })),
  });
}

/** Close-ups are seen larger than the whole body, so lines and marks are too. */
export const scaleOf = (view: View) => (view.startsWith("sole") || view.startsWith("head") ? 2.4 : 1);

/** Where a pointer is on the drawing, in view units. */
export function placeOn(svg: SVGSVGElement | null, e: { clientX: number; clientY: number }) {
  const m = svg?.getScreenCTM();
  if (!m) return { x: 0, y: 0 };
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
  return { x: Math.round(p.x * 10) / 10, y: Math.round(p.y * 10) / 10 };
}

interface Props extends Omit<SVGProps<SVGSVGElement>, "ref" | "viewBox"> {
  view: View;
  svg?: React.Ref<SVGSVGElement>;
  drawn?: Schemas["Drawn"];
  /** A muscle, structure or landmark to bring out. */
  bright?: string;
  /** Part of the view, in view units: x, y, width, height. */
  window?: [number, number, number, number];
  /** Drawn on the skin and cut off at its edge, below everything else. */
  inside?: ReactNode;
  children?: ReactNode;
}

export function BodySvg({ view, svg, drawn, bright, window: part, inside, children, ...rest }: Props) {
  const { data } = useFigure(view);
  const id = useId();
  if (!data) return <svg viewBox="0 0 480 1000" aria-busy />;
  const k = scaleOf(view);
  return (
    <svg
      ref={svg}
      viewBox={part ? part.join(" ") : `-6 -8 ${data.width + 12} 1016`}
      data-view={view}
      {...rest}
    >
      <defs>
        <filter id={`${id}-round`} x="-5%" y="-5%" width="110%" height="110%">
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
        <clipPath id={`${id}-skin`}>
          {data.shapes.map((s) => (
            <path key={s.id + s.side} d={s.path} />
          ))}
        </clipPath>
      </defs>
      {[0, 1].map((layer) => (
        <g key={layer} aria-hidden>
          <g fill="none" stroke="var(--skin-edge)" strokeWidth={2.6 * k} strokeLinejoin="round">
            {data.shapes
              .filter((s) => (s.layer ?? 0) === layer)
              .map((s) => (
                <path key={s.id + s.side} d={s.path} />
              ))}
          </g>
          <g fill="var(--skin)" filter={`url(#${id}-round)`}>
            {data.shapes
              .filter((s) => (s.layer ?? 0) === layer)
              .map((s) => (
                <path key={s.id + s.side} d={s.path} />
              ))}
          </g>
          <g fill="none" stroke="var(--skin-line)" strokeLinecap="round">
            {data.inner
              .filter((l) => (l.layer ?? 0) === layer)
              .map((l, i) => (
                <path
                  key={`${l.id}${i}`}
                  d={l.path}
                  strokeWidth={(0.8 + l.weight) * k}
                  opacity={0.25 + 0.55 * l.weight}
                />
              ))}
          </g>
        </g>
      ))}
      {inside && <g clipPath={`url(#${id}-skin)`}>{inside}</g>}
      {drawn && (
        <g aria-hidden>
          <g fill="none" stroke="var(--bone)" strokeLinecap="round">
            {drawn.bones.map((l, i) => (
              <path
                key={`${l.id}${i}`}
                d={l.path}
                strokeWidth={(0.7 + l.weight) * k}
                opacity={0.4 + 0.5 * l.weight}
              />
            ))}
          </g>
          <g
            clipPath={`url(#${id}-skin)`}
            stroke="var(--muscle-edge)"
            fill="none"
            strokeLinecap="round"
            strokeLinejoin="round"
          >
            {drawn.strands.map((s, i) => {
              const out = bright === s.muscle;
              return (
                <g
                  key={`${s.muscle}${s.side}${i}`}
                  data-muscle={s.muscle}
                  opacity={bright && !out ? 0.35 : 1}
                >
                  <path
                    d={s.belly}
                    fill="var(--muscle)"
                    fillOpacity={out ? 0.62 : 0.32}
                    strokeWidth={(out ? 1.4 : 0.8) * k}
                  />
                  {s.fibres.map((f) => (
                    <path key={f} d={f} strokeWidth={0.7 * k} opacity={0.5} />
                  ))}
                </g>
              );
            })}
          </g>
          {drawn.zones.map((z) => (
            <g key={z.muscle + z.side} fill="var(--usual)">
              {z.essential.map(([x, y]) => (
                <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.34} />
              ))}
              {z.spillover.map(([x, y]) => (
                <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.17} />
              ))}
            </g>
          ))}
          <g fill="none" stroke="var(--keep)" strokeLinecap="round" strokeLinejoin="round">
            {drawn.structures.map((s) => {
              const line = s.line.length > 1 ? s.line : [...s.line, ...s.line];
              const pts = line.map((p) => `${p.x},${p.y}`).join(" ");
              const out = bright === s.structure;
              return (
                <g key={s.structure + s.side} opacity={bright && !out ? 0.45 : 1}>
                  <polyline points={pts} strokeWidth={2 * s.radius} opacity={out ? 0.34 : 0.15} />
                  <polyline
                    points={pts}
                    strokeWidth={(out ? 2.4 : 1.5) * k}
                    strokeDasharray={`${5 * k} ${3 * k}`}
                  />
                </g>
              );
            })}
          </g>
          {drawn.landmarks.map((l) => (
            <circle
              key={l.id + l.side}
              cx={l.x}
              cy={l.y}
              r={(bright === l.id ? 6 : 3.2) * k}
              fill="var(--accent)"
              stroke="var(--card)"
              strokeWidth={1.1 * k}
            />
          ))}
        </g>
      )}
      {children}
    </svg>
  );
}
