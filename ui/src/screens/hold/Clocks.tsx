import type { Schemas } from "../../api/client";
import { clock } from "../../parts/words";

type Line = Schemas["Line"];

const ofPart: Partial<Record<Schemas["Phase"], string>> = {
  stage: "s left in this stage",
  press: "s of this press left",
  rest: "s of rest left",
  test: "s at most",
  slacken: "s of this try left",
  still: "s of stillness left",
  sink: "s to the out-breath",
  move: "s left in this movement",
  push: "s of pushing left",
  lengthen: "s of lengthening left",
  stroke: "s of strokes left",
  broad: "s of broad contact left",
};

/** One number in front: the part's, the flush's, else the pressure's. */
function inFront(line: Line) {
  if (line.phase === "flush") return { n: Math.ceil(line.wait_left_s), unit: "s of flushing left" };
  if (line.phase === "ramp") return { n: Math.round(line.ramp_percent), unit: "% of the ramp" };
  const left = line.part_left_s || line.stage_left_s;
  if (left > 0) return { n: Math.ceil(left), unit: ofPart[line.phase] ?? "s left" };
  return { n: Math.floor(line.pressure_s), unit: "s pressed" };
}

const nouns: Record<string, string> = {
  stages: "Stage",
  paced: "Press",
  brief: "Press",
  movements: "Movement",
  rounds: "Round",
  stations: "Station",
  breath: "Breath",
  pinned: "Breath",
  positional: "Try",
};

/** How far it is, in words. */
function howFar(line: Line, steering: string) {
  const noun = line.phase === "move" ? "Movement" : (nouns[steering] ?? "Part");
  if (steering === "stages") return line.stage ? `Stage ${line.stage} of 3` : "No stage yet";
  if (line.reps === 0) return "";
  return line.rep ? `${noun} ${line.rep} of ${line.reps}` : `${line.reps} to come`;
}

interface Props {
  line: Line;
  capS: number;
  steering: string;
  /** Nothing is pressed in this protocol, so no pressure time counts. */
  presses: boolean;
}

/** The clocks of a hold. */
export function Clocks({ line, capS, steering, presses }: Props) {
  const front = inFront(line);
  return (
    <div className="clocks">
      <span className="big" data-front>
        {front.n}
      </span>
      <span className="unit">
        {front.unit}
        <br />
        <b data-far>{howFar(line, steering)}</b>
        <br />
        {presses ? `${clock(line.pressure_s)} of ${clock(capS)} pressed` : "no pressure in this protocol"}
        {line.overrun_s > 0 && <b className="over"> · {Math.floor(line.overrun_s)} s over</b>}
      </span>
    </div>
  );
}

/** The bar of its pressure, and the coach's reason. */
export function PressureBar({ line, capS }: { line: Line; capS: number }) {
  const part = `${Math.min(100, (100 * line.pressure_s) / capS)}%`;
  return (
    <div>
      <div
        className="bar"
        role="progressbar"
        aria-label="Pressure time"
        aria-valuenow={Math.round(line.pressure_s)}
        aria-valuemax={capS}
      >
        <i style={{ width: part }} data-over={line.pressure_s >= capS} />
      </div>
      <div className="why" data-reason>
        {line.reason}
      </div>
    </div>
  );
}
