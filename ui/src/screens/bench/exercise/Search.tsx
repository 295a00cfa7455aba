// Search: a region close up is pressed and stroked, and the band with its most tender place marked.
import { useEffect, useRef, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { placeOn, scaleOf, useFigure, type View } from "../../../body/views";
import { type Box, useScale } from "../../../body/zoom";
import { ZoomedBody } from "../../../body/ZoomedBody";
import { useAsk } from "../../../core/useAsk";
import { Button, Card } from "../../../parts/controls";
import { Choice } from "../../../parts/Choice";
import { Row, Said } from "../../../parts/layout";
import { listed, plain, sentence } from "../../../parts/words";
import { Search as Find } from "../../../parts/Pick";
import { Slide } from "../../../parts/Slide";
import type { ExerciseProps } from "./props";
import { FeltLine } from "./FeltLine";
import { useHandForce } from "./force";
import { ForceSlide } from "./ForceSlide";
import { ClientSays, ExerciseRoom, Heading } from "./Side";
import type { ClientTold } from "./useExercise";
import { useFinger } from "./useFinger";

const Body = styled(ZoomedBody)`
  > svg {
    cursor: crosshair;
    touch-action: none;
  }
`;

/** About 24 cm of a grown-up: a region, close up. */
const regionUnits = 140;

interface Marked {
  x: number;
  y: number;
  direction: number;
  muscle?: Schemas["MuscleID"];
  side?: Schemas["Side"];
}

type Mode = "Feel" | "Mark";

export function Search({ core, doing, title }: ExerciseProps) {
  const region = doing.told.find((t) => t.shows?.view)?.shows;
  const view = (region?.view ?? "back") as View;
  const svg = useRef<SVGSVGElement>(null);
  const hand = useHandForce(12);
  const [sound, setSound] = useState(false);
  const [mode, setMode] = useState<Mode>("Feel");
  const [mark, setMark] = useState<Marked>();
  const finger = useFinger(svg, view, hand.newtons, sound, doing);
  const units = regionUnits / scaleOf(view);
  const { x = 240, y = 300 } = region ?? {};
  const drawn = !!useFigure(view).data;
  // Only once the body is drawn is it known how much room there is to come close in.
  const [fit, setFit] = useState<Box>();
  useEffect(() => {
    if (drawn) setFit({ x: x - units / 2, y: y - units / 2, width: units, height: units });
  }, [drawn, x, y, units]);
  const marking = mode === "Mark";
  return (
    <ExerciseRoom $side="420px">
      <div className="pane">
        <Body
          svg={svg}
          view={view}
          drags={false}
          fit={fit}
          onSecondFinger={finger.leave}
          data-live
          data-search
          aria-label="The region to be felt through"
          onPointerDown={marking ? undefined : finger.begin}
          onPointerMove={finger.move}
          onPointerUp={finger.lift}
          onPointerCancel={finger.leave}
          onTap={(e) => marking && setMark({ direction: 90, ...mark, ...placeOn(svg.current, e) })}
        >
          {finger.finger && <Finger {...finger.finger} view={view} />}
          {mark && <Band mark={mark} view={view} />}
        </Body>
      </div>
      <div className="side">
        <Heading title={title} doing={doing} can={doing.actions.some((a) => a.action === "mark")} />
        <Card>
          <Choice label="The finger" quiet options={["Feel", "Mark"]} value={mode} onChoose={setMode} />
          {!marking && (
            <>
              <FeltLine values={finger.line} />
              <ForceSlide hand={hand} />
              <Row>
                <Button aria-pressed={sound} onPress={() => setSound(!sound)}>
                  {sound ? "Sound off" : "Sound on"}
                </Button>
              </Row>
            </>
          )}
          {marking && <MarkForm core={core} view={view} mark={mark} setMark={setMark} doing={doing} />}
        </Card>
        <ClientSays told={doing.told}>
          <Said className="quiet" $small>
            {twitched(doing.told)
              ? "The muscle twitched under the finger."
              : "Press with a touch, stroke by moving; feel the other side too."}
          </Said>
        </ClientSays>
      </div>
    </ExerciseRoom>
  );
}

const twitched = (told: ClientTold[]) => !!told.at(-1)?.shows?.twitch;

/** The finger, and the way that it has come. */
function Finger({ from, at, view }: { from: Place; at: Place; view: View }) {
  const scale = useScale(view);
  return (
    <g pointerEvents="none" fill="none" stroke="var(--point)" strokeWidth={1.6 * scale}>
      <path d={`M${from.x} ${from.y}L${at.x} ${at.y}`} strokeDasharray={`${3 * scale} ${3 * scale}`} />
      <circle cx={at.x} cy={at.y} r={11 * scale} fill="var(--point)" fillOpacity={0.16} />
    </g>
  );
}

interface Place {
  x: number;
  y: number;
}

/** The band that was marked: its direction, and its most tender place. */
function Band({ mark, view }: { mark: Marked; view: View }) {
  const scale = useScale(view);
  return (
    <g
      transform={`translate(${mark.x} ${mark.y}) rotate(${-mark.direction})`}
      pointerEvents="none"
      stroke="var(--accent)"
      data-band={mark.direction}
    >
      <path
        d={`M${-34 * scale} 0H${34 * scale}`}
        strokeWidth={5 * scale}
        strokeLinecap="round"
        opacity={0.7}
      />
      <circle r={6 * scale} fill="var(--card)" strokeWidth={2.4 * scale} />
    </g>
  );
}

interface FormProps extends Pick<ExerciseProps, "core" | "doing"> {
  view: View;
  mark: Marked | undefined;
  setMark: (m: Marked) => void;
}

/** Which way the band runs, and which muscle it is in. */
function MarkForm({ core, view, mark, setMark, doing }: FormProps) {
  const under = useAsk(core, "under", mark && { view, x: mark.x, y: mark.y });
  if (!mark) return <Said>Touch the most tender place on the body.</Said>;
  const found = under?.muscles ?? [];
  const { muscle, side } = mark;
  const given = doing.actions.findLast((a) => a.action === "mark");
  const same = given?.muscle === muscle && given?.x === mark.x && given?.direction_deg === mark.direction;
  const tell = () =>
    void doing.act({
      action: "mark",
      view,
      x: mark.x,
      y: mark.y,
      direction_deg: mark.direction,
      muscle,
      side,
    });
  return (
    <>
      <Slide
        label="The band runs"
        value={mark.direction}
        min={0}
        max={179}
        describe={(d) => `${d}° from level`}
        onSlide={(direction) => setMark({ ...mark, direction })}
      />
      <Choice
        label="Under the finger"
        options={found.slice(0, 6).map((m) => `${m.muscle} ${m.side}`)}
        describe={(k) => muscleWords(k)}
        value={muscle && `${muscle} ${side}`}
        onChoose={(k) => {
          const [id, s] = k.split(" ");
          setMark({ ...mark, muscle: id as Schemas["MuscleID"], side: s as Schemas["Side"] });
        }}
      />
      <Find
        label="Another muscle"
        none="By name"
        value={muscle}
        options={core.lists.muscles.map((m) => m.id)}
        describe={(id) => sentence(plain(id))}
        onPick={(id) => id && setMark({ ...mark, muscle: id, side: side ?? sideOf(view, mark.x) })}
      />
      <Button $kind={same ? "plain" : "main"} isDisabled={!muscle || !side} onPress={tell}>
        {same ? "Marked" : "This is it"}
      </Button>
    </>
  );
}

const muscleWords = (key: string) => {
  const [id = "", side] = key.split(" ");
  return sentence(listed(plain(id), side));
};

/** On which side of the client a place of a view lies. */
const sideOf = (view: View, x: number): Schemas["Side"] => {
  if (view.endsWith("left")) return "left";
  if (view.endsWith("right")) return "right";
  return x < 240 === (view === "back") ? "left" : "right";
};
