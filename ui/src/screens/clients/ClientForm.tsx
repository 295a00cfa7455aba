// Register or change a client.
import type { Schemas } from "../../api/client";
import { Button, Choice, Day, Disclosed, Text, ErrorPanel } from "../../parts/controls";
import { Columns, Stack } from "../../parts/layout";
import { Length } from "../../parts/Length";
import { underAge } from "./age";
import { Alike } from "./Alike";
import { Both } from "./Both";
import { useClientForm } from "./useClientForm";

type Client = Schemas["Client"];

interface Props {
  client?: Client;
  /** The front desk sees and writes nothing clinical. */
  contactsOnly?: boolean;
  onSaved: (c: Client) => void;
}

export function ClientForm({ client, contactsOnly, onSaved }: Props) {
  const form = useClientForm(client, onSaved);
  const { v, field, error } = form;
  // Only where the field is asked for; whether a guardian must agree is the core's to say.
  const minor = underAge(v.born_on, new Date());
  const stored = error?.stored as Client | undefined;
  return (
    <Stack as="form" onSubmit={form.submit} noValidate $gap={3}>
      <Text label="Given name" {...field("given_name")} />
      <Text label="Family name" {...field("family_name")} />
      <Columns $cols="1fr 1fr" $gap={3}>
        <Day label="Born" {...field("born_on")} />
        {!contactsOnly && (
          <Length
            label="Height"
            value={form.height}
            onCommit={form.setHeight}
            min={50}
            max={250}
            error={error?.fields.height_cm}
          />
        )}
      </Columns>
      {(minor || v.guardian) && <Text label="Guardian: who, and how to reach them" {...field("guardian")} />}
      {minor && !v.guardian.trim() && (
        <p className="quiet" role="status">
          Under age: a guardian agrees to every treatment.
        </p>
      )}
      {!contactsOnly && <Text label="Work and sport" {...field("work")} />}
      {!contactsOnly && <Text label="Complaint, in the client's words" long {...field("complaint")} />}
      <Contact form={form} contactsOnly={contactsOnly} />
      {!client && (
        <Alike
          id={form.id}
          given={v.given_name.trim()}
          family={v.family_name.trim()}
          born={v.born_on.trim()}
        />
      )}
      {error && <ErrorPanel error={error} />}
      {stored && (
        <Both
          mine={v}
          stored={stored}
          onMine={() => form.setOver(stored.revision)}
          onStored={() => onSaved(stored)}
          chosen={form.over === stored.revision}
        />
      )}
      <Button type="submit" $kind="main" isDisabled={form.busy}>
        {form.busy ? "Saving…" : client ? "Save" : "Register"}
      </Button>
    </Stack>
  );
}

interface ContactProps {
  form: ReturnType<typeof useClientForm>;
  contactsOnly?: boolean;
}

function Contact({ form: { field, hand, setHand, error }, contactsOnly }: ContactProps) {
  const wrong = !!(error?.fields.phone || error?.fields.email || error?.fields.emergency_contact);
  return (
    <Disclosed
      key={String(wrong)}
      open={contactsOnly || wrong}
      summary={contactsOnly ? "Contact, emergency" : "Hand, contact, emergency"}
    >
      {!contactsOnly && (
        <Choice
          label="Dominant hand"
          value={hand}
          options={["left", "right", "both"] as const}
          onChoose={setHand}
        />
      )}
      <Text label="Phone" {...field("phone")} />
      <Text label="E-mail" {...field("email")} />
      <Text label="In an emergency: who, and how to reach them" {...field("emergency_contact")} />
    </Disclosed>
  );
}
