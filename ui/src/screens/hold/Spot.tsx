// The spot that is pressed, small and close: the muscle, the way of its fibres, and what to
// keep off. It only reminds; what is near is said in words below.
import { useMemo } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { BodySvg } from "../../body/BodySvg";
import { MarkShape } from "../../body/Mark";
import { toMark } from "../../body/marks";
import { scaleOf } from "../../body/views";
import { boxOf, Closeness } from "../../body/zoom";
import { heightOf } from "../../core/height";
import { useAsk } from "../../core/useAsk";
import { useGuide } from "../../core/useGuide";
import type { LiveVisit } from "../../core/useVisit";
import { plain } from "../../parts/words";

const Frame = styled.div`
  /* Of its own size: asked of its row, it would grow with the words that it pushes together. */
  width: 160px;
  height: 160px;
  border: 1px solid var(--line);
  border-radius: 18px;
  overflow: hidden;
  svg {
    display: block;
    width: 100%;
    height: 100%;
  }
`;

/** So much of a view is shown, in its units: 17 cm of a grown-up. */
const shown = 100;
/** So much smaller than a whole body's pane it is: marks keep the size of fingertips. */
const pane = 4;
/** A line along the fibres, on both sides of the mark. */
const along = 34;

export function Spot({ visit, hold }: { visit: LiveVisit; hold: Schemas["Hold"] }) {
  const { core, state, open } = visit;
  const point = state.points.find((p) => p.point === hold.point);
  const guide = useGuide(core, point, heightOf(open.context));
  const drawn = useAsk(
    core,
    "layers",
    useMemo(
      () =>
        point && {
          view: point.view,
          // Where it is felt is where its satellites would be.
          layers: ["muscles", "structures", "referral"] as ("muscles" | "structures" | "referral")[],
          only: [point.muscle],
          side: point.side,
        },
      [point],
    ),
  );
  if (!point) return null;
  const { view, x, y } = point;
  const size = shown * scaleOf(view);
  const rad = ((guide?.trace_deg ?? 0) * Math.PI) / 180;
  const [dx, dy] = [Math.cos(rad) * along, Math.sin(rad) * along];
  return (
    <Frame data-spot={point.muscle}>
      <Closeness value={boxOf(480).height / size / pane}>
        <BodySvg
          view={view}
          drawn={drawn}
          window={[x - size / 2, y - size / 2, size, size]}
          role="img"
          aria-label={`Where it is pressed: ${plain(point.muscle)}, ${point.side}`}
        >
          {guide && (
            <line
              x1={x - dx}
              y1={y - dy}
              x2={x + dx}
              y2={y + dy}
              stroke="var(--ink)"
              strokeWidth={2}
              strokeDasharray="5 4"
              vectorEffect="non-scaling-stroke"
            />
          )}
          <MarkShape
            m={{ ...toMark(point), number: undefined }}
            before={[]}
            at={point}
            view={view}
            selected={false}
            onGrab={() => undefined}
          />
        </BodySvg>
      </Closeness>
    </Frame>
  );
}
