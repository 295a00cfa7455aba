// What is chosen before a hold: with what, how the client lies, how the muscle
// is set, and under whom a student presses. Nothing is written that nobody
// chose; what was chosen last at this point, or this table, is offered again.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice } from "../../parts/controls";
import { plain, positionName } from "../../parts/words";
import type { StepProps } from "./Visit";

export interface HoldChoice {
  contact?: string;
  position?: string;
  muscle_set?: "tension" | "slack";
  under?: string;
}

type Point = Schemas["Point"];

/** What the therapist chose before, in this visit. */
function before(holds: Schemas["Hold"][], p: Point): HoldChoice {
  const here = holds.findLast((h) => h.point === p.point);
  const latest = holds.at(-1);
  const may = (list: Schemas["Choice"][], id?: string) =>
    list.some((c) => c.id === id && !c.why) ? id : undefined;
  return {
    contact: may(p.contacts, here?.contact),
    position: may(p.positions, here?.position ?? latest?.position),
    muscle_set: here?.muscle_set as HoldChoice["muscle_set"],
    under: latest?.under,
  };
}

export function useHoldChoice({ visit }: StepProps, p: Point) {
  const [own, setOwn] = useState<HoldChoice>({});
  const chosen = { ...before(visit.state.holds, p), ...own };
  return { chosen, choose: (c: HoldChoice) => setOwn({ ...own, ...c }) };
}

/** What is still to be chosen, in words; empty when a hold may begin. */
export function missing(c: HoldChoice, student: boolean, slackOrBroad: boolean): string {
  const open = [
    !c.contact && "a contact",
    !c.position && "a position",
    slackOrBroad && !c.muscle_set && "tension or slack",
    student && !c.under && "who countersigns",
  ].filter(Boolean);
  return open.length ? `Choose ${new Intl.ListFormat("en").format(open as string[])}.` : "";
}

function Options({
  label,
  list,
  value,
  describe,
  onChoose,
}: {
  label: string;
  list: Schemas["Choice"][];
  describe: (id: string) => string;
  value?: string;
  onChoose: (id: string) => void;
}) {
  const barred = list.filter((c) => c.why);
  return (
    <div>
      <Choice
        label={label}
        value={value}
        options={list.filter((c) => !c.why).map((c) => c.id)}
        describe={describe}
        onChoose={onChoose}
      />
      {barred.map((c) => (
        <p key={c.id} style={{ color: "var(--warn)", fontSize: 13.5 }}>
          {describe(c.id)}: {c.why}
        </p>
      ))}
    </div>
  );
}

export function HoldChoices({
  visit,
  point,
  chosen,
  choose,
  student,
}: StepProps & { point: Point; chosen: HoldChoice; choose: (c: HoldChoice) => void; student: boolean }) {
  const licensed = visit.open.team.filter((m) => m.role === "owner" || m.role === "therapist");
  const name = (id: string) => licensed.find((m) => m.id === id)?.name ?? id;
  return (
    <div
      data-choices
      style={{
        display: "grid",
        gridTemplateColumns: "repeat(auto-fit, minmax(220px, 1fr))",
        gap: "8px 18px",
      }}
    >
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
        onChoose={(muscle_set) => choose({ muscle_set })}
      />
      {student && (
        <Choice
          label="Countersigned by"
          value={chosen.under}
          options={licensed.map((m) => m.id)}
          describe={name}
          onChoose={(under) => choose({ under })}
        />
      )}
    </div>
  );
}
