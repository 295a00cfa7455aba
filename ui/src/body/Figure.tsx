// One view of the body with marks on it, touched or driven by keys.
import { type KeyboardEvent, type ReactNode, type RefObject, useRef } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../api/client";
import { type Mark, MarkShape } from "./Mark";
import { useDrag } from "./useDrag";
import { placeOn, scaleOf, useFigure, type View, viewName } from "./views";
import { type Box, type Place, useScale } from "./zoom";
import { ZoomedBody } from "./ZoomedBody";
import { type Zone, ZoneShape } from "./Zones";

export type { Mark, Zone };

const Zoomed = styled(ZoomedBody)`
  .mark {
    cursor: grab;
  }
  .mark:focus {
    outline: none;
  }
  .mark:focus-visible > circle:first-child {
    fill: var(--focus);
    opacity: 0.4;
  }
`;

interface Props {
  view: View;
  marks?: Mark[];
  zones?: Zone[];
  drawn?: Schemas["ViewLayers"];
  bright?: string;
  selected?: string;
  cursor?: Place;
  /** What is chosen: the body comes to it. */
  fit?: Box;
  onTouch?: (p: Place) => void;
  onAim?: (p: Place) => void;
  onSelect?: (id: string) => void;
  onDrop?: (id: string, p: Place) => void;
  label?: string;
  caption?: ReactNode;
  /** Drawn on the skin and cut off at its edge. */
  inside?: ReactNode;
  /** Drawn between the body and its zones, and between those and the marks. */
  children?: ReactNode;
  over?: ReactNode;
}

export function Figure(props: Props) {
  const { view, marks = [], zones = [], onTouch } = props;
  const svg = useRef<SVGSVGElement>(null);
  const { drag, grab, move, drop, leave } = useDrag(svg, props);
  const keys = useAim(svg, props);
  return (
    <Zoomed
      svg={svg}
      view={view}
      drags
      onSecondFinger={leave}
      fit={props.fit}
      drawn={props.drawn}
      bright={props.bright}
      inside={props.inside}
      caption={props.caption}
      data-live={!!onTouch}
      tabIndex={onTouch ? 0 : undefined}
      role={onTouch ? "application" : props.onSelect ? "group" : "img"}
      aria-label={props.label ?? labelOf(view, !!onTouch, marks.length)}
      onKeyDown={keys}
      onTap={(e) => {
        if (onTouch && !(e.target as Element).closest(".mark")) onTouch(placeOn(svg.current, e));
      }}
      onPointerMove={move}
      onPointerUp={drop}
      onPointerCancel={leave}
    >
      {props.children}
      {zones.map((z) => (
        <ZoneShape key={z.kind} z={z} />
      ))}
      {props.over}
      {marks.map((m, i) => (
        <MarkShape
          key={m.id}
          m={m}
          before={marks.slice(0, i)}
          view={view}
          at={drag?.id === m.id ? drag : m}
          selected={props.selected === m.id}
          onSelect={props.onSelect && (() => props.onSelect?.(m.id))}
          onGrab={(e) => grab(e, m)}
        />
      ))}
      {props.cursor && <Aim at={props.cursor} view={view} />}
    </Zoomed>
  );
}

const labelOf = (view: View, live: boolean, points: number) =>
  live
    ? `${viewName[view]} of the body. Arrow keys move the aim, Enter marks, + and − zoom.`
    : `${viewName[view]} of the body with ${points} points`;

type Svg = RefObject<SVGSVGElement | null>;

/** The arrow keys aim, Enter touches. */
function useAim(svg: Svg, { view, cursor, onAim, onTouch }: Props) {
  const { data: figure } = useFigure(view);
  const width = figure?.width ?? 480;
  return (e: KeyboardEvent) => {
    if (!onAim || !onTouch) return;
    const seen = svg.current?.viewBox.baseVal ?? { x: 0, y: 0, width, height: 1000 };
    // The closer, the finer: a step is as long on screen, and 1 mm of a grown-up at the least.
    const step = Math.max(0.6, ((scaleOf(view) > 1 ? 20 : 4) * seen.height) / 1016);
    const at = cursor ?? { x: seen.x + seen.width / 2, y: seen.y + seen.height / 2 };
    const by = e.shiftKey ? step * 5 : step;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const m = moves[e.key];
    if (!m && e.key !== "Enter" && e.key !== " ") return;
    e.preventDefault();
    if (m) onAim({ x: clamp(at.x + m[0], width), y: clamp(at.y + m[1], 1000) });
    else onTouch(at);
  };
}

const clamp = (v: number, most: number) => Math.min(most, Math.max(0, v));

function Aim({ at, view }: { at: Place; view: View }) {
  const scale = useScale(view);
  return (
    <g
      data-aim
      transform={`translate(${at.x} ${at.y})`}
      pointerEvents="none"
      fill="none"
      stroke="var(--point)"
      strokeWidth={1.6 * scale}
    >
      <circle r={13 * scale} stroke="var(--card)" strokeWidth={4.4 * scale} opacity={0.85} />
      <circle r={13 * scale} strokeDasharray={`${4 * scale} ${3 * scale}`} />
      <circle r={2.4 * scale} fill="var(--point)" stroke="var(--card)" />
    </g>
  );
}
