import type { Schemas } from "../../../api/client";
import { Choice } from "../../../parts/controls";
import { Columns, Said } from "../../../parts/layout";
import { plain, positionName, setName } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import type { HoldChoice } from "./choice";

interface OptionsProps<T extends string> {
  label: string;
  list: Schemas["Choice"][];
  describe: (id: string) => string;
  value?: T;
  onChoose: (id: T) => void;
}

/** What may be chosen, and why the rest may not. */
function Options<T extends string>({ label, list, value, describe, onChoose }: OptionsProps<T>) {
  const barred = list.filter((c) => c.why);
  return (
    <div>
      <Choice
        label={label}
        value={value}
        options={list.filter((c) => !c.why).map((c) => c.id as T)}
        describe={describe}
        onChoose={onChoose}
      />
      {barred.map((c) => (
        <Said key={c.id} $tone="warn" $small>
          {describe(c.id)}: {c.why}
        </Said>
      ))}
    </div>
  );
}

interface Props extends StepProps {
  point: Schemas["Point"];
  protocol?: Schemas["ProtocolID"];
  chosen: HoldChoice;
  choose: (c: HoldChoice) => void;
  student: boolean;
}

export function HoldChoices({ visit, point, protocol, chosen, choose, student }: Props) {
  // A copy that an earlier version kept on this device has none.
  const list = visit.open.own_protocols ?? {};
  const own = Object.entries(list).filter(([, s]) => s.protocol === protocol);
  const ownName = (id: string) => list[id]?.name ?? "Default";
  const team = visit.open.team.filter((m) => m.licensed);
  const name = (id: string) => team.find((m) => m.id === id)?.name ?? id;
  return (
    <Columns data-choices $cols="repeat(auto-fit, minmax(220px, 1fr))" $align="start">
      <Options
        label="Contact"
        list={point.contacts}
        describe={plain}
        value={chosen.contact}
        onChoose={(contact) => choose({ contact })}
      />
      <Options
        label="Client is"
        list={point.positions}
        describe={positionName}
        value={chosen.position}
        onChoose={(position) => choose({ position })}
      />
      <Choice
        label="Muscle on"
        value={chosen.muscle_set}
        options={["tension", "slack"] as const}
        describe={setName}
        onChoose={(muscle_set) => choose({ muscle_set })}
      />
      {own.length > 0 && (
        <Choice
          label="Numbers"
          value={chosen.own ?? ""}
          options={["", ...own.map(([id]) => id)]}
          describe={ownName}
          onChoose={(id) => choose({ own: id || undefined })}
        />
      )}
      {student && (
        <Choice
          label="Countersigned by"
          value={chosen.under}
          options={team.map((m) => m.id)}
          describe={name}
          onChoose={(under) => choose({ under })}
        />
      )}
    </Columns>
  );
}
