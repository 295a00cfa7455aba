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
    grid-auto-columns: minmax(0, 46px);
    gap: 3px;
  }
  &[data-scale] > button {
    min-width: 0;
    padding: 4px 0;
  }
`;
const Chip = styled(ToggleButton)`
  border: 1px solid var(--line);
  background: var(--card);
  border-radius: var(--r1);
  min-height: 38px;
  min-width: 38px;
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

/** One choice among a few, as chips; big enough for a knuckle. */
export function Choice<T extends string | number>({
  label,
  quiet,
  scale,
  value,
  options,
  onChoose,
  describe,
}: {
  /** A quiet label is only read aloud. */
  label: string;
  quiet?: boolean;
  /** Numbers of a scale stay in one row, on a telephone too. */
  scale?: boolean;
  value: T | undefined;
  options: readonly T[];
  onChoose: (v: T) => void;
  describe?: (v: T) => string;
}) {
  return (
    <Box>
      {!quiet && (
        <span className="label" aria-hidden>
          {label}
        </span>
      )}
      <Group
        aria-label={label}
        data-scale={scale || undefined}
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={value === undefined ? [] : [String(value)]}
        onSelectionChange={(k) => {
          const key = [...k][0];
          const chosen = options.find((o) => String(o) === String(key));
          if (chosen !== undefined) onChoose(chosen);
        }}
      >
        {options.map((o) => (
          <Chip key={o} id={String(o)}>
            {describe ? describe(o) : String(o)}
          </Chip>
        ))}
      </Group>
    </Box>
  );
}

/** Several choices among a few. */
export function Choices<T extends string>({
  label,
  quiet,
  values,
  options,
  onChange,
  describe,
}: {
  label: string;
  quiet?: boolean;
  values: readonly T[];
  options: readonly T[];
  onChange: (v: T[]) => void;
  describe?: (v: T) => string;
}) {
  return (
    <Box>
      {!quiet && (
        <span className="label" aria-hidden>
          {label}
        </span>
      )}
      <Group
        aria-label={label}
        selectionMode="multiple"
        selectedKeys={values}
        onSelectionChange={(k) => onChange([...k].map((x) => String(x) as T))}
      >
        {options.map((o) => (
          <Chip key={o} id={o}>
            {describe ? describe(o) : o}
          </Chip>
        ))}
      </Group>
    </Box>
  );
}
