// A password twice; what a good one is, is the server's to say.
import { Text } from "../../parts/controls";

export interface Chosen {
  first: string;
  again: string;
}
export const nothingChosen: Chosen = { first: "", again: "" };

/** What is missing, by the names of the fields. */
export const missingOf = (c: Chosen) => ({
  password: !c.first && "A password of at least 10 characters",
  again: c.first !== c.again && "The same password again",
});

interface Props {
  chosen: Chosen;
  onChange: (c: Chosen) => void;
  fields: Record<string, string>;
  label?: string;
}

export function NewPassword({
  chosen,
  onChange,
  fields,
  label = "Password: three or four words are good",
}: Props) {
  return (
    <>
      <Text
        label={label}
        type="password"
        name="new-password"
        autoComplete="new-password"
        value={chosen.first}
        onChange={(first) => onChange({ ...chosen, first })}
        error={fields.password ?? fields.new}
      />
      <Text
        label="Repeat"
        type="password"
        name="again"
        autoComplete="new-password"
        value={chosen.again}
        onChange={(again) => onChange({ ...chosen, again })}
        error={fields.again}
      />
    </>
  );
}
