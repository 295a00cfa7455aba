// A field and a button of the platform's own. The form at the door is there before anything else is
// fetched: behaviour beyond the browser's is not worth its wait.
import { type InputHTMLAttributes, useId } from "react";
import { styled } from "styled-components";
import { wellFormed } from "../../core/text";
import { Box } from "../../parts/Box";
import { type Pressable, pressable } from "../../parts/pressable";

export const Submit = styled.button<Pressable>`
  font: inherit;
  ${pressable}
`;

type Props = Omit<InputHTMLAttributes<HTMLInputElement>, "onChange"> & {
  label: string;
  error?: string;
  onChange: (text: string) => void;
};

export function Field({ label, error, onChange, ...props }: Props) {
  const id = useId();
  const says = `${id}says`;
  return (
    <Box>
      <label htmlFor={id}>{label}</label>
      <input
        {...props}
        id={id}
        onChange={(e) => onChange(wellFormed(e.target.value))}
        aria-invalid={!!error}
        aria-describedby={error && says}
        data-invalid={error && true}
      />
      {error && (
        <span className="error" id={says}>
          {error}
        </span>
      )}
    </Box>
  );
}
