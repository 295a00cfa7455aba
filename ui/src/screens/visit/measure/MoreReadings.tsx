// What else is read on one side: further trials, passive range, pain, end feel.
import { Choice, Num } from "../../../parts/controls";
import { Stack } from "../../../parts/layout";
import { sentence } from "../../../parts/words";
import { measured, type MovementSide, type Placing } from "./reading";
import type { Readings } from "./useReadings";
import { Where } from "./Where";

const scores = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

interface Props {
  at: MovementSide;
  readings: Readings;
  placing?: Placing;
}

export function MoreReadings({ at, readings, placing }: Props) {
  const trials = readings.trials(at);
  return (
    <Stack>
      {at.side !== "midline" && <b className="small">{sentence(at.side)}</b>}
      <div className="entry three">
        {["1st", "2nd", "3rd"].map((n, i) => (
          <Num
            key={n}
            label={n}
            value={trials[i]}
            min={-90}
            max={180}
            onCommit={(v) => readings.setTrial(at, i, v)}
          />
        ))}
      </div>
      {readings.moment === "before" && <Quality at={at} readings={readings} placing={placing} />}
    </Stack>
  );
}

/** How the movement ends, and what is felt there. */
function Quality({ at, readings, placing }: Props) {
  const r = readings.of(at);
  const set = readings.set;
  return (
    <>
      <Num
        label="Passive"
        unit="°"
        value={r?.passive}
        min={-90}
        max={180}
        onCommit={(v) => set(at, { passive_deg: v })}
      />
      <Choice
        scale
        label={`Pain at the end, ${at.side}`}
        value={r?.before_pain}
        options={scores}
        onChoose={(v) => set(at, { pain_nprs: v })}
      />
      <Where at={r} placing={placing} onOff={(x) => set(x, measured(x, { felt_region: undefined }))} />
      <Choice
        label={`Felt, ${at.side}`}
        value={r?.felt || undefined}
        options={["pull", "pinch", "pain"] as const}
        onChoose={(felt) => set(at, { felt })}
      />
      <Choice
        label={`End feel, ${at.side}`}
        value={r?.end_feel || undefined}
        options={["soft", "firm", "hard", "empty", "springy"] as const}
        onChoose={(v) => set(at, { end_feel: v })}
      />
    </>
  );
}
