// One posture reading: its side, its numbers, typed or taken from the
// inclinometer.
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";
import { useInclinometer, useInclinometerAddress } from "../../../core/useInclinometer";
import { Button, Choice } from "../../../parts/controls";
import { Row, Said } from "../../../parts/layout";
import { play } from "../../hold/tones";
import { Readout } from "../Instrument";
import type { StepProps } from "../StepProps";
import { type Draft, readingOf } from "./draft";
import { DraftFields } from "./DraftFields";
import { type Measure, ofSides, readable } from "./measures";
import { type ReadSide, steadyDraft } from "./steady";

type Keep = (v: Draft, side: ReadSide | undefined) => void;

interface Props extends StepProps {
  measure: string;
  m: Measure;
  /** Of treatment; before, where nothing else is said. */
  moment?: "after";
  /** The side that was touched on the body. */
  side?: Schemas["Side"];
}

const sideOf = (s: Schemas["Side"] | undefined) => (s === "midline" ? undefined : s);

export function Reading({ visit, measure, m, moment, side: touched }: Props) {
  const { core, write } = visit;
  const [side, setSide] = useState<ReadSide | undefined>(() => sideOf(touched));
  useEffect(() => setSide(sideOf(touched)), [touched]);
  const [v, setV] = useState<Draft>({});
  const [lacks, setLacks] = useState("");
  /** Keeps what was typed, or what the instrument read. */
  const keep: Keep = async (draft, of) => {
    const r = await readingOf(core, measure, m, draft, of);
    if ("lacks" in r) return setLacks(r.lacks);
    write("posture-read", moment ? { ...r.reading, moment } : r.reading);
    setV({});
    setLacks("");
    if (ofSides(m)) setSide(of === "left" ? "right" : "left");
  };
  return (
    <>
      {m.how !== "deg" && m.how !== "curve" && (
        <Choice
          label={ofSides(m) ? "Side read" : "Which side is high or forward"}
          value={side}
          options={["left", "right"] as const}
          onChoose={(s) => {
            setSide(s);
            setLacks("");
          }}
        />
      )}
      <DraftFields m={m} v={v} setV={setV} />
      {lacks && (
        <Said role="alert" $tone="stop">
          {lacks}
        </Said>
      )}
      <Steady visit={visit} m={m} side={side} keep={keep} onType={() => keep(v, side)} />
    </>
  );
}

/** Keeps by a press, or when the inclinometer lies steady. */
function Steady({
  visit,
  m,
  side,
  keep,
  onType,
}: StepProps & { m: Measure; side: ReadSide | undefined; keep: Keep; onType: () => void }) {
  const address = useInclinometerAddress();
  const [on, setOn] = useState(false);
  const [read, setRead] = useState<(string | undefined)[]>([]);
  const taken = (t: Schemas["SteadyReading"]) => {
    play("taken");
    const of = steadyDraft(m, t, side);
    keep(of.draft, of.side);
    // One reading is enough, or one on each side.
    const sides = new Set([...read, side]);
    setRead([...sides]);
    if (!ofSides(m) || sides.size === 2) setOn(false);
  };
  const can = readable(m);
  const live = useInclinometer(
    visit.core,
    on && can ? address : undefined,
    "posture",
    m.usual ?? { deg: 10 },
    taken,
  );
  const next =
    ofSides(m) && !side
      ? "Choose the side to read first."
      : `${m.name}${ofSides(m) ? `, ${side}` : ""}: ready; hold still at the end.`;
  return (
    <>
      {on && can && <Readout live={live} next={next} />}
      <Row>
        <Button $kind="main" onPress={onType}>
          Keep the reading
        </Button>
        {address && can && (
          <Button
            aria-pressed={on}
            onPress={() => {
              setRead([]);
              setOn(!on);
            }}
          >
            {on ? "Stop the inclinometer" : "Auto-record when steady"}
          </Button>
        )}
      </Row>
    </>
  );
}
