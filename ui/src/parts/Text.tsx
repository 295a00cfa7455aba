// A text that is typed.
import { FieldError, Input, Label, TextArea, TextField, type TextFieldProps } from "react-aria-components";
import { wellFormed } from "../core/text";
import { Box } from "./Box";

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
