// What an owner says of a person.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button, Choice, Day, Pick, Text } from "../../parts/controls";
import { Columns, Row } from "../../parts/layout";
import { plain, sentence } from "../../parts/words";

export type Given = Schemas["PersonInput"] & { email?: string };
export const nobody: Given = { name: "", role: "therapist", licence: "", licence_until: "" };

const roles = ["owner", "therapist", "student", "front-desk"] as const;

interface Props {
  given: Given;
  withEmail?: boolean;
  people: Schemas["Colleague"][];
  self?: string;
  fields: Record<string, string>;
  busy: boolean;
  act: string;
  onKeep: (given: Given) => void;
}

export function PersonForm({ given, withEmail, people, self, fields, busy, act, onKeep }: Props) {
  const [now, setNow] = useState(given);
  const set = (over: Partial<Given>) => setNow({ ...now, ...over });
  const supervisors = people.filter((p) => p.licensed && p.id !== self);
  return (
    <>
      <Columns $cols="repeat(auto-fit, minmax(min(240px, 100%), 1fr))" $gap={3}>
        <Text
          label="Name"
          name="name"
          value={now.name}
          onChange={(name) => set({ name })}
          error={fields.name}
        />
        {withEmail && (
          <Text
            label="E-mail, to sign in by"
            type="email"
            name="email"
            value={now.email ?? ""}
            onChange={(email) => set({ email })}
            error={fields.email}
          />
        )}
        <Text
          label="Licence, as the authority calls it"
          name="licence"
          value={now.licence ?? ""}
          onChange={(licence) => set({ licence })}
          error={fields.licence}
        />
        <Day
          label="Licence until"
          name="licence_until"
          value={now.licence_until ?? ""}
          onChange={(licence_until) => set({ licence_until })}
          error={fields.licence_until}
        />
      </Columns>
      <Choice
        label="Role"
        value={now.role}
        options={roles}
        describe={(r) => sentence(plain(r))}
        onChoose={(role) => set({ role })}
      />
      {now.role === "student" && (
        <Pick
          label="Supervised by"
          value={now.supervisor}
          options={supervisors.map((p) => p.id)}
          describe={(id) => supervisors.find((p) => p.id === id)?.name ?? ""}
          none="nobody yet"
          onPick={(supervisor) => set({ supervisor })}
        />
      )}
      <Row>
        <Button $kind="main" isDisabled={busy || !now.name.trim()} onPress={() => onKeep(now)}>
          {act}
        </Button>
      </Row>
    </>
  );
}
