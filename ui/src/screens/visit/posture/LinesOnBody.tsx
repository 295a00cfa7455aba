// Where posture is read, on the body: a line for each measure that a touch chooses, the chosen
// one strong; what was read last time in grey, until it is read today.
import type { Schemas } from "../../../api/client";
import { PostureLines } from "../../../body/PostureLines";
import type { View } from "../../../body/views";
import { useMarkScale } from "../../../body/zoom";
import type { LiveVisit } from "../../../core/useVisit";
import { type PostureLine, type PosturePlace, samePlace } from "./lines";

interface Props {
  visit: LiveVisit;
  view: View;
  chosen?: PosturePlace;
}

const readOf = (list: Schemas["Posture"][], l: PosturePlace) =>
  list.find((p) => p.measure === l.measure && (l.side === "midline" || p.side === l.side));

export function LinesOnBody({ visit: { core, state, open }, view, chosen }: Props) {
  const k = useMarkScale(view);
  const lines = core.lists.postureLines.filter((l) => l.view === view);
  const before = open.earlier_posture.filter(
    (p) => !state.posture.some((x) => x.measure === p.measure && x.side === p.side),
  );
  return (
    <>
      <g opacity={0.45} data-posture-before>
        <PostureLines view={view} posture={before} flags={[]} />
      </g>
      <g aria-hidden>
        {lines.map((l) => (
          <Line
            key={l.measure + l.side}
            l={l}
            k={k}
            chosen={samePlace(chosen, l)}
            read={!!readOf(state.posture, l)}
          />
        ))}
      </g>
      <PostureLines view={view} posture={state.posture} flags={state.posture_flags} />
    </>
  );
}

function Line({ l, k, chosen, read }: { l: PostureLine; k: number; chosen: boolean; read: boolean }) {
  const stroke = chosen ? "var(--accent)" : "var(--ink-soft)";
  const wide = (chosen ? 3.5 : 1.4) * k;
  const r = (chosen ? 7 : 4.5) * k;
  return (
    <g
      data-posture-line={`${l.measure}:${l.side}`}
      data-chosen={chosen}
      opacity={read && !chosen ? 0.35 : chosen ? 1 : 0.7}
    >
      <line
        x1={l.x1}
        y1={l.y1}
        x2={l.x2}
        y2={l.y2}
        stroke={stroke}
        strokeWidth={wide}
        strokeDasharray={chosen ? undefined : `${6 * k} ${5 * k}`}
      />
      {[
        [l.x1, l.y1],
        [l.x2, l.y2],
      ].map(([x, y]) => (
        <circle key={`${x},${y}`} cx={x} cy={y} r={r} fill="var(--card)" stroke={stroke} strokeWidth={wide} />
      ))}
    </g>
  );
}
