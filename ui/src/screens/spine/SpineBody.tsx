// The spine on the body: tips, the chosen level, finger-widths beside it.
import { useRef } from "react";
import { BodySvg } from "../../body/BodySvg";
import { placeOn } from "../../body/views";
import { useAsk } from "../../core/useAsk";
import type { Core } from "../../core/core";
import { type Beside, levels } from "./levels";
import type { Spine } from "./useSpine";

interface Place {
  x: number;
  y: number;
}

/** View units to a cm, at the figure's usual height. */
const perCM = 1000 / 170;
/** Levels that are named without being chosen. */
const named = ["C2", "C7", "T3", "T7", "T12", "L4", "S2"];

export function SpineBody({ core, spine, finger }: { core: Core; spine: Spine; finger: number }) {
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useAsk(core, "layers", { view: "back", layers: ["bones"] });
  const { level, here } = spine;
  return (
    <BodySvg
      svg={svg}
      view="back"
      drawn={drawn}
      window={[-6, 58, 492, 464]}
      role="application"
      tabIndex={0}
      aria-label={`The spine, ${level} chosen. Up and down choose a level.`}
      onPointerDown={(e) => spine.touch(placeOn(svg.current, e))}
      onKeyDown={(e) => {
        const d = e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
        const n = levels[levels.indexOf(level) + d];
        if (!d || !n) return;
        e.preventDefault();
        spine.choose(n);
      }}
    >
      <Tips spine={spine} />
      {here && <Lines spine={spine} here={here} />}
      {here &&
        spine.beside
          .filter((b) => b.out > 0)
          .map((b) => <Fingers key={b.name} b={b} here={here} width={finger * perCM} />)}
    </BodySvg>
  );
}

function Tips({ spine: { tips, level, from } }: { spine: Spine }) {
  return (
    <>
      {tips.map((t) => (
        <circle
          key={t.id}
          cx={t.x}
          cy={t.y}
          r={t.id === level ? 5.4 : 2.5}
          fill={t.id === level ? "var(--accent)" : "var(--card)"}
          stroke="var(--accent)"
          strokeWidth={1}
        />
      ))}
      {tips
        .filter((t) => named.includes(t.id) || t.id === level || t.id === from)
        .map((t) => (
          <text
            key={t.id}
            x={t.x - 13}
            y={t.y + 3.4}
            fontSize={t.id === level ? 13 : 9.5}
            fontWeight={t.id === level ? 700 : 500}
            textAnchor="end"
            fill="var(--ink)"
            stroke="var(--card)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {t.id}
          </text>
        ))}
    </>
  );
}

/** From the landmark to its level, and from where one counts. */
function Lines({ spine: { marks, level, from, tips }, here }: { spine: Spine; here: Place }) {
  const start = from !== level && tips.find((t) => t.id === from);
  return (
    <>
      {marks
        .filter((m) => m.id !== level)
        .map((m) => (
          <g key={m.side}>
            <line
              x1={m.x}
              y1={m.y}
              x2={here.x}
              y2={here.y}
              stroke="var(--accent)"
              strokeWidth={1}
              strokeDasharray="4 3"
            />
            <circle cx={m.x} cy={m.y} r={4} fill="var(--accent)" stroke="var(--card)" />
          </g>
        ))}
      {start && (
        <line
          x1={start.x - 5}
          y1={start.y}
          x2={here.x - 5}
          y2={here.y}
          stroke="var(--right)"
          strokeWidth={2.4}
        />
      )}
    </>
  );
}

/** A finger laid beside the level. */
function Fingers({ b, here, width }: { b: Beside; here: Place; width: number }) {
  const x = here.x + b.out * width;
  const y = here.y + b.down * width;
  return (
    <g>
      <rect
        x={x - width / 2}
        y={y - 5.5}
        width={width}
        height={11}
        rx={5.2}
        fill="var(--point)"
        fillOpacity={0.16}
        stroke="var(--point)"
        strokeWidth={0.9}
      />
      <text x={x} y={y + 3.2} fontSize={9} textAnchor="middle" fill="var(--ink)" fontWeight={650}>
        {b.out}
        {b.down ? "↓" : ""}
      </text>
    </g>
  );
}
