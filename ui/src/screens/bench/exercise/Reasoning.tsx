// Reasoning: story, drawing and ranges on demand, then up to three answers with a confidence each.
import { useMemo, useRef, useState } from "react";
import type { Schemas } from "../../../api/client";
import type { Drawing } from "../../../body/drawing";
import { BodyViews } from "../../../body/BodyViews";
import { Painted } from "../../../body/Painted";
import { ZoomedBody } from "../../../body/ZoomedBody";
import { useMainViews } from "../../../body/useMainViews";
import { cellId, useLattice } from "../../../body/lattice";
import type { View } from "../../../body/views";
import { Button, Card } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { deg, listed, movementName, plain } from "../../../parts/words";
import { Search as Find } from "../../../parts/Pick";
import type { ExerciseProps } from "./props";
import { Naming } from "./Naming";
import { ClientSays, ExerciseRoom, Heading } from "./Side";
import type { ClientTold } from "./useExercise";

export function Reasoning({ core, doing, title }: ExerciseProps) {
  const drawn = doing.told.find((t) => t.shows?.pain)?.shows?.pain ?? [];
  const named = doing.actions.some((a) => a.action === "name");
  const main = useMainViews(core, { anywhere: true });
  return (
    <ExerciseRoom $side="440px">
      <div className="pane">
        <BodyViews main={main}>{(v) => <DrawnBody key={v} view={v} pain={drawn} />}</BodyViews>
      </div>
      <div className="side">
        <Heading title={title} doing={doing} can={named} />
        <Card>
          <h2>What you look at</h2>
          <Row $wrap>
            <Button onPress={() => void doing.act({ action: "ask", what: "story" })} isDisabled={named}>
              Story, 60 s
            </Button>
            <Button onPress={() => void doing.act({ action: "ask", what: "drawing" })} isDisabled={named}>
              Drawing, 60 s
            </Button>
          </Row>
          <Measure core={core} doing={doing} title={title} />
          <DoTest core={core} doing={doing} title={title} />
          <Readings told={doing.told} core={core} />
        </Card>
        <ClientSays told={doing.told}>{drawn.length > 0 && <PainWords pain={drawn} />}</ClientSays>
        <Naming core={core} doing={doing} title={title} />
      </div>
    </ExerciseRoom>
  );
}

export function PainWords({ pain }: { pain: Schemas["PainOf"][] }) {
  return (
    <Said className="quiet">
      {pain
        .map((p) => `${listed(plain(p.region), p.side !== "midline" && p.side)} ${p.intensity}`)
        .join("; ")}
    </Said>
  );
}

/** The regions that hurt, as the client painted them. */
function DrawnBody({ view, pain }: { view: View; pain: Schemas["PainOf"][] }) {
  const svg = useRef<SVGSVGElement>(null);
  const { data: lattice } = useLattice(view);
  const drawing = useMemo(() => paintedAs(view, pain, lattice), [view, pain, lattice]);
  return (
    <ZoomedBody
      svg={svg}
      view={view}
      drags
      inside={lattice && <Painted view={view} lattice={lattice} drawing={drawing} />}
      aria-label={`The drawing: ${pain.length} regions`}
    />
  );
}

/** A drawing of regions, as cells of a view. */
export function paintedAs(
  view: View,
  pain: Schemas["PainOf"][],
  lattice: Schemas["Lattice"] | undefined,
): Drawing {
  const out = new Map<string, { kind: "ache"; intensity: number }>();
  for (const c of lattice?.cells ?? []) {
    const region = lattice?.regions[c.g];
    const p = pain.find((x) => x.region === region && x.side === c.s);
    if (p) out.set(cellId(view, c), { kind: "ache", intensity: p.intensity });
  }
  return out;
}

/** A movement that is measured, one at a time. */
export function Measure({ core, doing }: ExerciseProps) {
  const [movement, setMovement] = useState<Schemas["MovementID"]>();
  const sides = core.lists.movements.find((m) => m.movement === movement)?.sides ?? [];
  return (
    <>
      <Find
        label="A range, 45 s"
        none="Which movement"
        value={movement}
        options={core.lists.movements.map((m) => m.movement)}
        describe={movementName}
        onPick={setMovement}
      />
      {movement && (
        <Row $wrap>
          {sides.map((side) => (
            <Button key={side} onPress={() => void doing.act({ action: "test", movement, side })}>
              {side === "midline" ? "Measure" : `Measure ${side}`}
            </Button>
          ))}
        </Row>
      )}
    </>
  );
}

/** A test of the evidence, one at a time. */
function DoTest({ core, doing }: ExerciseProps) {
  const [test, setTest] = useState<Schemas["TestID"]>();
  const of = core.lists.tests.find((t) => t.id === test);
  return (
    <>
      <Find
        label="A test, 60 s"
        none="Which test"
        value={test}
        options={core.lists.tests.map((t) => t.id)}
        describe={(id) => core.lists.tests.find((t) => t.id === id)?.name ?? id}
        onPick={setTest}
      />
      {of && (
        <>
          <Said className="quiet" $small>
            {of.how}
          </Said>
          <Row $wrap>
            {(["left", "right"] as const).map((side) => (
              <Button key={side} onPress={() => void doing.act({ action: "test", test: of.id, side })}>
                {`Test ${side}`}
              </Button>
            ))}
          </Row>
        </>
      )}
    </>
  );
}

/** What was measured, beside what is usual, and what came of tests. */
export function Readings({ told, core }: { told: ClientTold[]; core: ExerciseProps["core"] }) {
  const list = told.flatMap((t) => (t.shows?.movement || t.shows?.test ? [t.shows] : []));
  if (list.length === 0) return null;
  return (
    <Stack $gap={1} data-readings={list.length}>
      {list.map((r, i) => {
        if (r.test)
          return (
            <Said key={i} $small>
              {listed(core.lists.tests.find((t) => t.id === r.test)?.name, r.side)}: <b>{r.result}</b>
            </Said>
          );
        const usual = core.lists.movements.find((m) => m.movement === r.movement)?.reference;
        return (
          <Said key={i} $small>
            {movementName(r.movement ?? "")}
            {r.side !== "midline" && `, ${r.side}`}: <b>{deg(r.deg)}</b>
            <span className="quiet"> of {deg(usual)}</span>
          </Said>
        );
      })}
    </Stack>
  );
}
