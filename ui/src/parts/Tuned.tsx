// A practice's own values over the shipped ones: each with its source, bounds
// and the way back.
import { useState } from "react";
import { Button, Disclosed, Num, ErrorPanel } from "./controls";
import { Ruled } from "./layout";

interface TunedField {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onSet: (v: number) => Promise<unknown>;
}
interface TunedRow {
  id: string;
  name: string;
  source: string;
  fields: TunedField[];
  /** Back to what was shipped; only where the practice has set its own. */
  onReset?: () => Promise<unknown>;
}

interface Props {
  summary: string;
  note: string;
  rows: TunedRow[];
  name: string;
}

export function Tuned({ summary, note, rows, name }: Props) {
  const [error, setError] = useState<Error>();
  const run = (call: Promise<unknown>) => call.then(() => setError(undefined), setError);
  return (
    <Disclosed data-tuned={name} summary={summary}>
      <p className="quiet">{note}</p>
      {error && <ErrorPanel error={error} />}
      {rows.map((r) => (
        <Tunable key={r.id} r={r} run={run} />
      ))}
    </Disclosed>
  );
}

function Tunable({ r, run }: { r: TunedRow; run: (call: Promise<unknown>) => void }) {
  const reset = r.onReset;
  return (
    <Ruled data-row={r.id} $cols={`minmax(0,1fr) repeat(${r.fields.length}, 82px) 82px`} $align="center">
      <span className="small">
        {r.name} <span className="quiet">({r.source})</span>
      </span>
      {r.fields.map((f) => (
        <Num
          key={f.label}
          hideLabel
          label={`${r.name}: ${f.label}`}
          value={f.value}
          min={f.min}
          max={f.max}
          step={f.step}
          onCommit={(v) => v !== undefined && v !== f.value && run(f.onSet(v))}
        />
      ))}
      {reset ? <Button onPress={() => run(reset())}>Reset</Button> : <span />}
    </Ruled>
  );
}
