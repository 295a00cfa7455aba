// What each column of a table is, by hand where its name does not say it.
import type { Schemas } from "../../api/client";
import { Choice, Pick } from "../../parts/controls";
import { Columns, Said, Stack } from "../../parts/layout";
import { sentence } from "../../parts/words";
import { type Day, days, type Said as SaidOf } from "./imported";

interface Props {
  seen: Schemas["Preview"];
  said: SaidOf;
  busy: boolean;
  onSay: (over: Partial<SaidOf>) => void;
}

const leaveOut = "left out";

export function TableColumns({ seen, said, busy, onSay }: Props) {
  const { columns = [], fields = [] } = seen;
  if (!columns.length) return null;
  return (
    <Stack $gap={2} data-columns aria-busy={busy}>
      <Choice
        label="Days are written"
        value={said.day}
        options={Object.keys(days) as Day[]}
        describe={(d) => days[d]}
        onChoose={(day) => onSay({ day })}
      />
      <Columns $cols="repeat(auto-fit, minmax(190px, 1fr))" $gap={3} $align="end">
        {columns.map((c) => (
          <Pick
            key={c.name}
            label={`“${c.name}” is`}
            none={leaveOut}
            value={(said.columns[c.name] ?? c.field) || undefined}
            options={fields}
            describe={(f) => sentence(f.replaceAll("_", " "))}
            onPick={(f) => onSay({ columns: { ...said.columns, [c.name]: f ?? "" } })}
          />
        ))}
      </Columns>
      <Said className="quiet" $small>
        This is remembered on this device for the next file of the kind.
      </Said>
    </Stack>
  );
}
