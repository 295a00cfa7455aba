// A number that is set by touches, within its bounds.
import { Button as AriaButton } from "react-aria-components";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";

const Box = styled.div`
  display: grid;
  grid-template-columns: var(--touch) minmax(74px, auto) var(--touch);
  align-items: center;
  border: 1px solid var(--line);
  border-radius: var(--r1);
  text-align: center;
  font-variant-numeric: tabular-nums;
  button {
    border: 0;
    background: none;
    color: var(--accent);
    font-size: 22px;
    min-height: var(--touch);
    cursor: pointer;
  }
  button[data-disabled] {
    color: var(--line);
  }
`;

interface Props {
  label: string;
  value: number;
  unit: string;
  by: number;
  bounds: Schemas["DoseBounds"];
  onChange: (v: number) => void;
}

export function Stepper({ label, value, unit, by, bounds, onChange }: Props) {
  return (
    <Box role="group" aria-label={label}>
      <AriaButton aria-label="Less" isDisabled={value <= bounds.least} onPress={() => onChange(value - by)}>
        −
      </AriaButton>
      <span aria-live="polite">
        {value} <span className="quiet">{unit}</span>
      </span>
      <AriaButton aria-label="More" isDisabled={value >= bounds.most} onPress={() => onChange(value + by)}>
        +
      </AriaButton>
    </Box>
  );
}
