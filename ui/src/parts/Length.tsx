// A length, typed in the practice's unit and handed on in cm. What is not touched
// stays as it was: a length is never rounded by looking at it.
import { Num } from "./fields";
import { cmOf, lengthIn, lengthUnit, useUnitPreferences } from "./unitPreferences";

interface Props {
  label: string;
  /** All in cm. */
  value: number | undefined;
  min: number;
  max: number;
  /** In cm; an inch is typed to a tenth. */
  step?: number;
  onCommit: (cm: number | undefined) => void;
  error?: string;
}

export function Length({ label, value, min, max, step = 1, onCommit, error }: Props) {
  const w = useUnitPreferences();
  const shown = value === undefined ? undefined : lengthIn(value, w);
  return (
    <Num
      label={label}
      unit={lengthUnit(w)}
      value={shown}
      min={lengthIn(min, w)}
      max={lengthIn(max, w)}
      step={w.units === "imperial" ? 0.1 : step}
      onCommit={(v) => v !== shown && onCommit(v === undefined ? undefined : cmOf(v, w))}
      error={error}
    />
  );
}
