// What is typed: a number, a day.
import { parseDate } from "@internationalized/date";
import { type FocusEvent, useRef } from "react";
import {
  DateField,
  DateInput,
  DateSegment,
  FieldError,
  Input,
  Label,
  NumberField,
} from "react-aria-components";
import { styled } from "styled-components";
import { Box } from "./Box";

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

const DayBox = styled(Box)`
  .field {
    display: flex;
    align-items: center;
    padding-block: 7px;
  }
  [role="spinbutton"] {
    padding: 1px 2px;
    border-radius: 4px;
    font-variant-numeric: tabular-nums;
  }
  [role="spinbutton"][data-focused] {
    background: var(--accent);
    color: var(--accent-ink);
    outline: none;
  }
  [data-placeholder] {
    color: var(--ink-soft);
  }
`;

const whole = /^\d{4}-\d{2}-\d{2}$/;

/** A day, as YYYY-MM-DD; "" is none. What is typed in part is handed on as it
 * stands, so that it is refused by name instead of being lost. */
export function Day({
  label,
  name,
  value,
  onChange,
  error,
}: {
  label: string;
  name: string;
  value: string;
  onChange: (v: string) => void;
  error?: string;
}) {
  const field = useRef<HTMLDivElement>(null);
  const left = (e: FocusEvent) => {
    if (field.current?.contains(e.relatedTarget)) return;
    const parts = [...(field.current?.querySelectorAll('[role="spinbutton"]') ?? [])];
    const empty = parts.filter((p) => p.hasAttribute("data-placeholder")).length;
    if (empty > 0 && empty < parts.length) onChange(parts.map((p) => p.textContent).join("."));
    else if (empty > 0 && value) onChange("");
  };
  return (
    <DateField
      name={name}
      value={whole.test(value) ? parseDate(value) : null}
      onChange={(v) => onChange(v?.toString() ?? "")}
      isInvalid={!!error}
      onBlur={left}
    >
      <DayBox>
        <Label>{label}</Label>
        <DateInput ref={field} className="field">
          {(segment) => <DateSegment segment={segment} />}
        </DateInput>
        <FieldError className="error">{error}</FieldError>
      </DayBox>
    </DateField>
  );
}
