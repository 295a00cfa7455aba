// Ranges read with the inclinometer, hands free: the next reading is named, and
// taken when it lies steady at the end of the movement.
import { useEffect, useRef, useState } from "react";
import type { Core } from "../../core/core";
import { useAsk } from "../../core/useAsk";
import { useInclinometer, useInclinometerAddress } from "../../core/useInclinometer";
import { Button, Card, Choice } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { listed, movementName } from "../../parts/words";
import { play } from "../hold/tones";
import { Readout } from "./Instrument";
import type { Slot } from "./measure/useReadings";

/** "Neck rotation, left, 2 of 3". */
const nameOf = ({ movement, side, of, trial }: Slot) =>
  listed(movementName(movement), side !== "midline" && side, of > 1 && `${trial + 1} of ${of}`);

/** About as far as a stand-in's arm goes where nothing else is known. */
const usualDeg = 60;

const tools = ["inclinometer", "goniometer", "by eye"];

interface Props {
  core: Core;
  /** What is still to be read when each side is read n times. */
  slots: (n: number) => Slot[];
  /** Ask how many times; the close-out repeats what was done before. */
  ask: boolean;
  tool: string;
  onTool: (t: string) => void;
  /** What is read next, and what the instrument shows meanwhile. */
  onNext: (s: Slot, degrees: number | undefined) => void;
  onTaken: (s: Slot, degrees: number) => void;
}

export function ByInstrument({ core, slots, ask, tool, onTool, onNext, onTaken }: Props) {
  const address = useInclinometerAddress();
  const [on, setOn] = useState(false);
  const [times, setTimes] = useState(1);
  const [skipped, setSkipped] = useState<string[]>([]);
  const key = (s: Slot) => s.movement + s.side + s.trial;
  const next = slots(times).find((s) => !skipped.includes(key(s)));
  const nextKey = next && key(next);
  const target = useRef(next);
  target.current = next;
  const reference = useAsk(core, "range", next && { movement: next.movement })?.reference;
  const live = useInclinometer(
    core,
    on && next ? address : undefined,
    "range",
    { deg: reference ?? usualDeg },
    (t) => {
      if (!target.current) return;
      play("taken");
      onTaken(target.current, Math.round(Math.abs(t.deg)));
    },
  );
  const shown = on && live.deg !== undefined ? Math.round(Math.abs(live.deg)) : undefined;
  const told = useRef(onNext);
  told.current = onNext;
  useEffect(() => {
    if (on && target.current) told.current(target.current, shown);
  }, [on, shown, nextKey]);
  if (!ask && !address) return null;
  return (
    <Card data-by-instrument>
      <Row $wrap>
        {ask && !on && <Choice quiet label="Read with" value={tool} options={tools} onChoose={onTool} />}
        {address && tool === "inclinometer" && (
          <Button
            $kind={on ? "main" : "plain"}
            aria-pressed={on}
            onPress={() => {
              setOn(!on);
              setSkipped([]);
            }}
          >
            {on ? "Stop measuring" : "Auto-record when steady"}
          </Button>
        )}
        {on && ask && (
          <Choice
            quiet
            label="Times each side"
            value={times}
            options={[1, 2, 3]}
            describe={(n) => (n === 1 ? "once" : n === 2 ? "twice" : "three times")}
            onChoose={setTimes}
          />
        )}
        {on && next && <Button onPress={() => setSkipped([...skipped, key(next)])}>Skip this one</Button>}
      </Row>
      {on &&
        (next ? (
          <Readout live={live} next={`Ready for ${nameOf(next)}: hold still at the end.`} />
        ) : (
          <p role="status">All readings taken.</p>
        ))}
    </Card>
  );
}
