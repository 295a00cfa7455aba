// Readings of an instrument that does not stream, typed.
import { Num } from "../../../parts/controls";
import { Columns } from "../../../parts/layout";

interface Props {
  trials: number[];
  onKeep: (trials: number[]) => void;
}

const nth = [0, 1, 2];

export function TypedTrials({ trials, onKeep }: Props) {
  const commit = (i: number, v: number | undefined) => {
    const next = nth.map((k) => (k === i ? v : trials[k])).filter((x) => x !== undefined);
    if (next.length > 0) onKeep(next);
  };
  return (
    <Columns $cols="repeat(3, minmax(0, 1fr))">
      {nth.map((i) => (
        <Num
          key={i}
          label={`Trial ${i + 1}`}
          unit="kPa"
          min={0}
          max={5000}
          value={trials[i]}
          onCommit={(v) => commit(i, v)}
        />
      ))}
    </Columns>
  );
}
