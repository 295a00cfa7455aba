// A field and a button of the platform's own. The form at the door is there before anything else is
// fetched: behaviour beyond the browser's is not worth its wait.
import { type InputHTMLAttributes, useId } from "react";
import { styled } from "styled-components";
import { Box } from "../../parts/Box";
import { type Pressable, pressable } from "../../parts/pressable";

export const Submit = styled.button<Pressable>`
  font: inherit;
  ${pressable}
  :root[data-sent] & {
    cursor: progress;
    background: var(--ink-soft);
    border-color: var(--ink-soft);
  }
`;

type Props = InputHTMLAttributes<HTMLInputElement> & { label: string; error?: string };

export function Field({ label, error, ...props }: Props) {
  const id = useId();
  const says = `${id}says`;
  return (
    <Box>
      <label htmlFor={id}>{label}</label>
      <input
        {...props}
        id={id}
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
