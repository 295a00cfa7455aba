// Small controls: behaviour from React Aria, looks from the theme.
import { type ReactNode, useId } from "react";
import {
  Button as AriaButton,
  type ButtonProps,
  FieldError,
  Input,
  Label,
  NumberField,
  TextArea,
  TextField,
  type TextFieldProps,
  ToggleButton,
  ToggleButtonGroup,
} from "react-aria-components";
import { styled } from "styled-components";
import { wellFormed } from "../core/text";

export const Button = styled(AriaButton)<ButtonProps & { $kind?: "main" | "plain" | "stop" }>`
  border: 1px solid
    ${(p) => (p.$kind === "main" ? "var(--accent)" : p.$kind === "stop" ? "var(--stop)" : "var(--line)")};
  background: ${(p) => (p.$kind === "main" ? "var(--accent)" : p.$kind === "stop" ? "var(--stop-soft)" : "var(--card)")};
  color: ${(p) => (p.$kind === "main" ? "var(--accent-ink)" : p.$kind === "stop" ? "var(--stop)" : "var(--ink)")};
  border-radius: 10px;
  padding: 8px 16px;
  min-height: 40px;
  font-weight: 560;
  cursor: pointer;
  &[data-hovered] {
    filter: brightness(0.97);
  }
  &[data-pressed] {
    transform: translateY(1px);
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
`;

const Box = styled.div`
  display: grid;
  gap: 4px;
  align-content: start;
  label,
  .label {
    font-size: 13px;
    font-weight: 560;
    color: var(--ink-soft);
  }
  input,
  textarea {
    font: inherit;
    color: var(--ink);
    background: var(--card);
    border: 1px solid var(--line);
    border-radius: 9px;
    padding: 8px 11px;
    min-height: 40px;
    width: 100%;
  }
  input[data-invalid],
  textarea[data-invalid] {
    border-color: var(--stop);
  }
  .error {
    color: var(--stop);
    font-size: 13px;
  }
`;

export function Text({
  label,
  long,
  error,
  type,
  onChange,
  ...props
}: TextFieldProps & { label: string; long?: boolean; error?: string }) {
  return (
    <TextField {...props} type={type} isInvalid={!!error} onChange={(v) => onChange?.(wellFormed(v))}>
      <Box>
        <Label>{label}</Label>
        {long ? <TextArea rows={3} /> : <Input />}
        <FieldError className="error">{error}</FieldError>
      </Box>
    </TextField>
  );
}

const NumberBox = styled(Box)`
  input {
    text-align: right;
    font-variant-numeric: tabular-nums;
    padding-right: 10px;
  }
`;

export function Num({
  label,
  unit,
  value,
  onCommit,
  min,
  max,
  step = 1,
  error,
  hideLabel,
}: {
  label: string;
  unit?: string;
  value: number | undefined;
  onCommit: (v: number | undefined) => void;
  min: number;
  max: number;
  step?: number;
  error?: string;
  hideLabel?: boolean;
}) {
  return (
    <NumberField
      aria-label={hideLabel ? label : undefined}
      value={value ?? Number.NaN}
      onChange={(v) => onCommit(Number.isNaN(v) ? undefined : v)}
      minValue={min}
      maxValue={max}
      step={step}
      isInvalid={!!error}
      formatOptions={{ maximumFractionDigits: 1, useGrouping: false }}
    >
      <NumberBox>
        {!hideLabel && <Label>{unit ? `${label} (${unit})` : label}</Label>}
        <Input />
        <FieldError className="error">{error}</FieldError>
      </NumberBox>
    </NumberField>
  );
}

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
  border-radius: 9px;
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
export function Choices({
  label,
  quiet,
  values,
  options,
  onChange,
  describe,
}: {
  label: string;
  quiet?: boolean;
  values: string[];
  options: string[];
  onChange: (v: string[]) => void;
  describe?: (v: string) => string;
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
        onSelectionChange={(k) => onChange([...k].map(String))}
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

export const Card = styled.section`
  background: var(--card);
  border: 1px solid var(--line-soft);
  border-radius: 16px;
  padding: 18px 20px;
`;

const Note = styled.div`
  display: flex;
  gap: 12px;
  align-items: center;
  background: var(--warn-soft);
  color: var(--warn);
  border-radius: 12px;
  padding: 10px 14px;
`;
export function Trouble({ error, onRetry }: { error: Error; onRetry?: () => void }) {
  return (
    <Note role="alert">
      <span>{error.message}</span>
      {onRetry && <Button onPress={onRetry}>Try again</Button>}
    </Note>
  );
}

export const Waiting = ({ children }: { children: ReactNode }) => (
  <p className="quiet" style={{ padding: 24 }} role="status">
    {children}
  </p>
);

const Native = styled(Box)`
  select {
    font: inherit;
    color: var(--ink);
    background: var(--card);
    border: 1px solid var(--line);
    border-radius: 9px;
    padding: 7px 9px;
    min-height: 40px;
    width: 100%;
  }
`;

/** One of a long list; the platform's own list is the quickest by touch and keys. */
export function Pick<T extends string>({
  label,
  value,
  options,
  onPick,
  describe,
  none,
}: {
  label: string;
  value: T | undefined;
  options: readonly T[];
  onPick: (v: T | undefined) => void;
  describe?: (v: T) => string;
  none: string;
}) {
  const id = useId();
  return (
    <Native>
      <label htmlFor={id}>{label}</label>
      <select
        id={id}
        value={value ?? ""}
        onChange={(e) => onPick((e.target.value || undefined) as T | undefined)}
      >
        <option value="">{none}</option>
        {options.map((o) => (
          <option key={o} value={o}>
            {describe ? describe(o) : o}
          </option>
        ))}
      </select>
    </Native>
  );
}
