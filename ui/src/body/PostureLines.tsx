// Posture readings drawn on the figure, so that the client sees them: tilted
// lines, distances, angles, the way something turns or bulges. Angles are drawn
// as they are.
import type { Schemas } from "../api/client";
import { lengthWords, useUnitPreferences } from "../parts/unitPreferences";
import { shapes } from "./postureShapes";
import { useFigure, type View } from "./views";
import { useMarkScale } from "./zoom";

interface Props {
  view: View;
  posture: Schemas["Posture"][];
  flags: Schemas["PostureFlag"][];
}

export function PostureLines({ view, posture, flags }: Props) {
  const { data: figure } = useFigure(view);
  const k = useMarkScale(view);
  const written = useUnitPreferences();
  if (!figure || posture.length === 0) return null;
  const mark = (id: string, side: string) =>
    figure.landmarks.find((l) => l.id === id && (l.side === side || l.side === "midline"));
  const length = (cm: number) => lengthWords(cm, written);
  return (
    <g aria-hidden data-posture-lines>
      {posture.map((p, i) => (
        <g key={p.measure + (p.side ?? "")} data-drawn={p.measure}>
          {shapes[p.measure]?.({ p, view, mark, k, length, flagged: flags[i]?.flagged ?? false })}
        </g>
      ))}
    </g>
  );
}
