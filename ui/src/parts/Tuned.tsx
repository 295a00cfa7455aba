// A practice's own values over the shipped ones: each with its source, bounds
// and the way back.
import { useState } from "react";
import { Button, Num, Trouble } from "./controls";

export interface TunedField {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onSet: (v: number) => Promise<unknown>;
}
export interface TunedRow {
  id: string;
  name: string;
  source: string;
  fields: TunedField[];
  /** Back to what was shipped; only where the practice has set its own. */
  onReset?: () => Promise<unknown>;
}

export function Tuned({
  summary,
  note,
  rows,
  name,
}: {
  summary: string;
  note: string;
  rows: TunedRow[];
  name: string;
}) {
  const [error, setError] = useState<Error>();
  const run = (call: Promise<unknown>) => call.then(() => setError(undefined), setError);
  return (
    <details data-tuned={name}>
      <summary className="quiet" style={{ cursor: "pointer" }}>
        {summary}
      </summary>
      <p className="quiet" style={{ margin: "6px 0" }}>
        {note}
      </p>
      {error && <Trouble error={error} />}
      {rows.map((r) => (
        <div
          key={r.id}
          data-row={r.id}
          style={{
            display: "grid",
            gridTemplateColumns: `minmax(0,1fr) repeat(${r.fields.length}, 82px) 78px`,
            gap: 8,
            alignItems: "center",
            padding: "5px 0",
            borderTop: "1px solid var(--line-soft)",
          }}
        >
          <span style={{ fontSize: 14 }}>
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
          {r.onReset ? (
            <Button onPress={() => r.onReset && run(r.onReset())} style={{ padding: "4px 8px" }}>
              Reset
            </Button>
          ) : (
            <span />
          )}
        </div>
      ))}
    </details>
  );
}
