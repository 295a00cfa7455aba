// How a muscle is set on stretch and on slack: each drawn, with its words.
import { styled } from "styled-components";
import type { Schemas } from "../api/client";
import type { Core } from "../core/core";
import { useAsk } from "../core/useAsk";
import { plain } from "../parts/words";
import { PosePicture } from "./PosePicture";

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s3);
  > figure {
    margin: 0;
    display: grid;
    grid-template-columns: 132px minmax(0, 1fr);
    gap: var(--s2);
    align-items: center;
    border: 1px solid var(--line-soft);
    border-radius: var(--r1);
    padding: var(--s1) var(--s2);
  }
  > figure:not(:has(svg)) {
    grid-template-columns: minmax(0, 1fr);
  }
  > figure[data-chosen="true"] {
    border-color: var(--accent);
  }
  svg {
    height: 132px;
  }
  @container (max-width: 520px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Room = styled.div`
  container-type: inline-size;
`;

type Guide = Pick<Schemas["Guide"], "muscle" | "side" | "tension" | "slack">;

interface Props {
  core: Core;
  guide: Guide;
  /** How the client lies; standing where nobody has said. */
  lies?: Schemas["PositionID"];
  /** The one that a hold begins with. */
  chosen?: string;
  /** A joint position in words. */
  say?: (j: Guide["slack"][number]) => string;
}

const inWords = (j: Guide["slack"][number]) => j.text ?? plain(j.movement.replace(".", " "));

export function MuscleSets({ core, guide, lies, chosen, say = inWords }: Props) {
  return (
    <Room>
      <Pair>
        {(["tension", "slack"] as const).map((set) => (
          <figure key={set} data-set={set} data-chosen={set === chosen}>
            <Drawn
              key={guide.muscle + guide.side}
              core={core}
              muscle={guide.muscle}
              side={guide.side}
              set={set}
              lies={lies}
            />
            <figcaption>
              <b>{set === "tension" ? "On stretch" : "On slack"}:</b> {guide[set].map(say).join(", ")}
            </figcaption>
          </figure>
        ))}
      </Pair>
    </Room>
  );
}

interface DrawnProps extends Pick<Props, "core" | "lies">, Pick<Guide, "muscle" | "side"> {
  set: "tension" | "slack";
}

/** Jaw, thumb and breath are no joints of the figure: they stay in words. */
function Drawn({ core, muscle, side, set, lies }: DrawnProps) {
  const d = useAsk(core, "position", { muscle, set, side, lies });
  return d ? <PosePicture d={d} label={`How it is set on ${set === "tension" ? "stretch" : set}`} /> : null;
}
