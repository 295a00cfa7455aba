// The simulated client above the steps of a visit: what may be asked, drawn, measured and felt at each
// of them. What is found is entered on the ordinary screens, as of anybody.
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../../api/client";
import { ofBench } from "../../../core/benchVisit";
import { uuidv7 } from "../../../core/ids";
import { toStrokes } from "../../../body/drawing";
import { useLattice } from "../../../body/lattice";
import { figureVersion } from "../../../body/figurePath";
import type { LiveVisit } from "../../../core/useVisit";
import { Button, Card } from "../../../parts/controls";
import { Disclosed } from "../../../parts/Disclosed";
import { Fill, Row, Said } from "../../../parts/layout";
import type { Path } from "../../visit/steps";
import type { Body } from "../../visit/body/useBody";
import { AskedQuestions } from "../exercise/Asking";
import { FeltLine, inLine } from "../exercise/FeltLine";
import { useHandForce } from "../exercise/force";
import { ForceSlide } from "../exercise/ForceSlide";
import { Measure, paintedAs, Readings } from "../exercise/Reasoning";
import type { Doing } from "../exercise/useExercise";
import { exerciseName } from "../words";
import { useBenchVisit } from "./useBenchVisit";
import { useFinish } from "./useFinish";

interface Props {
  visit: LiveVisit;
  me: Schemas["Me"];
  path: Path;
  body: Body;
}

export default function BenchGuide({ visit, me, path, body }: Props) {
  const id = visit.open.visit.id;
  const client = useBenchVisit(id);
  const { leave } = useFinish(id, me, client?.doing);
  useCharted(visit);
  if (!client) return null;
  const { doing, exercise } = client;
  const last = doing.told.findLast((t) => t.says);
  return (
    <Card $gap={2} role="region" aria-label="Simulated client" data-says={last?.says ?? ""}>
      <Row $gap={3}>
        <Fill>
          <b>{exerciseName[exercise]}</b>
          <span className="quiet"> · a simulated client, nobody's record</span>
        </Fill>
        <Button onPress={leave}>Leave</Button>
      </Row>
      <Said $lead aria-live="polite">
        {last?.says ? `“${last.says}”` : visit.open.visit.reason}
      </Said>
      {exercise === "visit" ? (
        <ByStep visit={visit} path={path} body={body} doing={doing} />
      ) : (
        <Said>
          The point is charted. Begin the hold below, by any protocol; or close, where nothing is to be
          pressed.
        </Said>
      )}
      {doing.error && (
        <Said $tone="stop" role="alert">
          {doing.error.message}
        </Said>
      )}
    </Card>
  );
}

/** A grading begins where consent, screening and point are there already. */
function useCharted({ open, core, state, write }: LiveVisit) {
  const of = ofBench(open.visit.id);
  const written = useRef(state.points.length > 0);
  useEffect(() => {
    if (of?.input.exercise !== "grading" || written.current) return;
    written.current = true;
    const { muscle, side, place, grade, familiar } = of.place;
    void core.ask("place", { muscle, side, place }).then((at) => {
      const areas = ["visit", "groin", "buttock", "chest", "abdomen", "axilla", "coccyx"] as const;
      for (const area of areas)
        write("consent-recorded", {
          area,
          given: true,
          by: "client",
          ...(area === "visit" ? {} : { chaperone: "declined" as const }),
        });
      write("screening-answered", {
        answers: core.lists.questions.map((q) => ({ question: q.id, answer: "no" as const })),
      });
      write("point-charted", {
        point: uuidv7(),
        muscle,
        side,
        figure: figureVersion,
        ...at,
        place,
        grade,
        taut_band: "yes",
        familiar: familiar ? "yes" : "no",
      });
    });
  }, [of, core, write]);
}

function ByStep({ visit, path, body, doing }: Omit<Props, "me"> & { doing: Doing }) {
  const props = { core: visit.core, doing, title: "" };
  switch (path.step) {
    case "draw":
      return <LetDraw visit={visit} doing={doing} />;
    case "screen":
      return (
        <Disclosed summary="Ask the client">
          <AskedQuestions {...props} />
        </Disclosed>
      );
    case "measure":
      return (
        <>
          <Measure {...props} />
          <Readings told={doing.told} core={visit.core} />
        </>
      );
    case "find":
    case "recheck":
      return <FeelHere body={body} doing={doing} />;
    case "close":
      return <Said>Say below what it is, then finish.</Said>;
    default:
      return null;
  }
}

/** The client paints where it hurts. */
function LetDraw({ visit, doing }: { visit: LiveVisit; doing: Doing }) {
  const [asked, setAsked] = useState(false);
  const lattices = {
    front: useLattice("front").data,
    back: useLattice("back").data,
    left: useLattice("left").data,
    right: useLattice("right").data,
  };
  const draw = async () => {
    setAsked(true);
    const told = await doing.act({ action: "ask", what: "drawing" });
    const pain = told.find((t) => t.shows?.pain)?.shows?.pain ?? [];
    const cells = (["front", "back", "left", "right"] as const).flatMap((v) => [
      ...paintedAs(v, pain, lattices[v]),
    ]);
    if (cells.length)
      visit.write("drawing-painted", {
        figure: figureVersion,
        strokes: toStrokes(new Map(cells)),
        by: "client",
      });
  };
  return (
    <Row>
      <Button $kind="main" isDisabled={asked || visit.state.drawing.length > 0} onPress={() => void draw()}>
        Let the client draw
      </Button>
    </Row>
  );
}

/** What is under the finger where the body was touched last. */
function FeelHere({ body, doing }: { body: Body; doing: Doing }) {
  const hand = useHandForce(12);
  const [line, setLine] = useState<number[]>([]);
  const at = body.aim;
  const press = async () => {
    if (!at) return;
    const told = await doing.act({
      action: "press",
      view: at.view,
      x: at.x,
      y: at.y,
      force_n: Math.round(hand.newtons * 10) / 10,
    });
    const felt = told.flatMap((t) => t.feels ?? []);
    setLine((old) => [...old, ...felt].slice(-inLine));
  };
  return (
    <>
      <FeltLine values={line} />
      <ForceSlide hand={hand} />
      <Row $wrap>
        <Button $kind="main" isDisabled={!at} onPress={() => void press()}>
          Press where the body was touched
        </Button>
      </Row>
      {!at && <Said className="quiet">Touch a place on the body first.</Said>}
    </>
  );
}
