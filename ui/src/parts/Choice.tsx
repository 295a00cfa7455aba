// What is chosen among a few, as chips.
import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import { styled } from "styled-components";
import { Box } from "./Box";

const Group = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  &[data-scale] {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: minmax(0, var(--touch));
    gap: 3px;
  }
  /* With a client on the table, rows of six and five where one of eleven would be too fine. */
  [data-hands="true"] &[data-scale] {
    grid-auto-columns: minmax(0, 1fr);
    @container (max-width: 560px) {
      grid-auto-flow: row;
      grid-template-columns: repeat(6, minmax(0, 1fr));
    }
  }
  &[data-scale] > button {
    min-width: 0;
    padding: 4px 0;
  }
`;
/** A scale is as wide as it may be, and asks how wide that is. */
const Asked = styled(Box)`
  &:has([data-scale]) {
    container-type: inline-size;
  }
`;
const Chip = styled(ToggleButton)`
  border: 1px solid var(--line);
  background: var(--card);
  border-radius: var(--r1);
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 4px 11px;
  cursor: pointer;
  font-weight: 520;
  font-variant-numeric: tabular-nums;
  &[data-selected] {
    background: var(--accent);
    border-color: var(--accent);
    color: var(--accent-ink);
  }
`;

interface Labelled {
  /** A quiet label is only read aloud. */
  label: string;
  quiet?: boolean;
}

interface Chips<T> extends Labelled {
  options: readonly T[];
  describe?: (v: T) => string;
  /** Numbers of a scale stay in one row, on a telephone too. */
  scale?: boolean;
  selected: readonly T[];
  several?: boolean;
  /** Touched again, the choice is taken back. */
  clears?: boolean;
  onSelect: (v: T[]) => void;
}

function Chips<T extends string | number>({ label, quiet, options, describe, ...p }: Chips<T>) {
  return (
    <Asked>
      {!quiet && (
        <span className="label" aria-hidden>
          {label}
        </span>
      )}
      <Group
        aria-label={label}
        data-scale={p.scale || undefined}
        selectionMode={p.several ? "multiple" : "single"}
        disallowEmptySelection={!p.several && !p.clears}
        selectedKeys={p.selected.map(String)}
        onSelectionChange={(keys) => p.onSelect(options.filter((o) => keys.has(String(o))))}
      >
        {options.map((o) => (
          <Chip key={o} id={String(o)}>
            {describe ? describe(o) : String(o)}
          </Chip>
        ))}
      </Group>
    </Asked>
  );
}

interface One<T> extends Labelled, Pick<Chips<T>, "options" | "describe" | "scale"> {
  value: T | undefined;
  onChoose: (v: T) => void;
}

/** One choice among a few, as chips; big enough for a knuckle. */
export function Choice<T extends string | number>({ value, onChoose, ...chips }: One<T>) {
  const selected = value === undefined ? [] : [value];
  return <Chips {...chips} selected={selected} onSelect={([v]) => v !== undefined && onChoose(v)} />;
}

interface Perhaps<T> extends Labelled, Pick<Chips<T>, "options" | "describe" | "scale"> {
  value: T | undefined;
  onChoose: (v: T | undefined) => void;
}

/** One choice, or none: touched again it is taken back. */
export function Perhaps<T extends string | number>({ value, onChoose, ...chips }: Perhaps<T>) {
  const selected = value === undefined ? [] : [value];
  return <Chips {...chips} clears selected={selected} onSelect={([v]) => onChoose(v)} />;
}

interface Several<T> extends Labelled, Pick<Chips<T>, "options" | "describe"> {
  values: readonly T[];
  onChange: (v: T[]) => void;
}

/** Several choices among a few. */
export function Choices<T extends string>({ values, onChange, ...chips }: Several<T>) {
  return <Chips {...chips} several selected={values} onSelect={onChange} />;
}
