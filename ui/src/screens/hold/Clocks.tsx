import type { Schemas } from "../../api/client";
import { clock } from "../../parts/words";

/** One number in front: the stage's, the flush's, else the pressure's. */
function inFront(line: Schemas["Line"]) {
  if (line.phase === "flush") return { n: Math.ceil(line.wait_left_s), unit: "s of flushing left" };
  if (line.stage_left_s > 0) return { n: Math.ceil(line.stage_left_s), unit: "s left in this stage" };
  return { n: Math.floor(line.pressure_s), unit: "s pressed" };
}

/** The clocks of a hold, the bar of its pressure, and the coach's reason. */
export function Clocks({ line, capS }: { line: Schemas["Line"]; capS: number }) {
  const front = inFront(line);
  return (
    <>
      <div className="clocks">
        <span className="big" data-front>
          {front.n}
        </span>
        <span className="unit">
          {front.unit}
          <br />
          <b>{line.stage ? `Stage ${line.stage} of 3` : "No stage yet"}</b>
          <br />
          {clock(line.pressure_s)} of {clock(capS)} pressed
          {line.overrun_s > 0 && <b className="over"> · {Math.floor(line.overrun_s)} s over</b>}
        </span>
      </div>
      <div>
        <div
          className="bar"
          role="progressbar"
          aria-label="Pressure time"
          aria-valuenow={Math.round(line.pressure_s)}
          aria-valuemax={capS}
        >
          <i style={{ width: `${(100 * line.pressure_s) / capS}%` }} data-over={line.pressure_s >= capS} />
        </div>
        <div className="why" data-reason>
          {line.reason}
        </div>
      </div>
    </>
  );
}
