// Where the strokes are given: the stations along the attachment, on the body
// close up; the one of now is full.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { BodySvg } from "../../body/BodySvg";
import { boxOf, Closeness, fitted } from "../../body/zoom";
import { useFigure } from "../../body/views";
import { useAsk } from "../../core/useAsk";
import type { LiveVisit } from "../../core/useVisit";
import { phone } from "../../theme";
import { heightOf } from "../../core/height";

const Frame = styled.div`
  align-self: stretch;
  aspect-ratio: 1;
  border-radius: var(--r2);
  overflow: hidden;
  svg {
    width: 100%;
    height: 100%;
  }
  .station {
    fill: var(--card);
    stroke: var(--accent);
  }
  .station[data-at="past"] {
    fill: var(--accent-soft);
  }
  .station[data-at="now"] {
    fill: var(--accent);
  }
  ${phone} {
    align-self: center;
    height: 104px;
  }
`;

/** Radius of a station in shares of what is shown; and how much is shown round
 * them, in view units. */
const radius = 0.035;
const around = 26;

interface Props {
  visit: LiveVisit;
  hold: Schemas["Hold"];
  line: Schemas["Line"];
}

export function Stations({ visit: { core, open }, hold: { start }, line }: Props) {
  const { muscle, side, plan } = start;
  const height = heightOf(open.context);
  const of = muscle && (side === "left" || side === "right") ? { muscle, side } : undefined;
  const drawn = useAsk(core, "stations", of && { ...of, stations: plan?.stations ?? 3, height_cm: height });
  const layers = useAsk(
    core,
    "layers",
    of && drawn && { view: drawn.view, layers: ["bones", "muscles"], only: [of.muscle], side: of.side },
  );
  const { data: figure } = useFigure(drawn?.view ?? "back");
  if (!drawn || !layers || !figure) return null;
  const xs = drawn.stations.map((s) => s.x);
  const ys = drawn.stations.map((s) => s.y);
  const part = {
    x: Math.min(...xs) - around,
    y: Math.min(...ys) - around,
    width: Math.max(...xs) - Math.min(...xs) + 2 * around,
    height: Math.max(...ys) - Math.min(...ys) + 2 * around,
  };
  const whole = boxOf(figure.width);
  const zoom = fitted(part, whole);
  const r = Math.max(part.width, part.height) * radius;
  return (
    <Frame role="img" aria-label={`Station ${line.rep ?? 0} of ${drawn.stations.length}`} data-stations>
      <Closeness value={zoom.k}>
        <BodySvg
          view={drawn.view}
          drawn={layers}
          window={[part.x, part.y, part.width, part.height]}
          preserveAspectRatio="xMidYMid slice"
        >
          {drawn.stations.map((s, i) => (
            <circle
              key={i}
              className="station"
              data-at={i + 1 === line.rep ? "now" : i + 1 < (line.rep ?? 0) ? "past" : "to come"}
              cx={s.x}
              cy={s.y}
              r={r}
              strokeWidth={r * 0.4}
            />
          ))}
        </BodySvg>
      </Closeness>
    </Frame>
  );
}
