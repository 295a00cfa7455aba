// Who works here: asked to join, licensed, supervised, gone.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Failed, ErrorPanel, Waiting } from "../../parts/controls";
import { Columns, Fill, Row, Said, Stack } from "../../parts/layout";
import { useTry } from "../../parts/useTry";
import { plain, sentence } from "../../parts/words";
import { phone } from "../../theme";
import { longDate } from "../progress/time";
import { Leave } from "./Leave";
import { type Given, nobody, PersonForm } from "./PersonForm";
import { dateFormat } from "../../parts/dates";

const Room = styled.div`
  max-width: 860px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  .link {
    font-family: var(--mono, monospace);
    overflow-wrap: anywhere;
    user-select: all;
  }
  ${phone} {
    padding: 16px 12px 40px;
  }
`;

const until = (iso: string) =>
  dateFormat("en-GB", { dateStyle: "medium", timeStyle: "short" }).format(new Date(iso));

type Colleague = Schemas["Colleague"];

export default function People({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const q = useQuery({ queryKey: ["people"], queryFn: () => must(api.GET("/api/people")) });
  const [link, setLink] = useState<{ name: string; link: Schemas["OneTimeLink"] }>();
  const [asking, setAsking] = useState(false);
  const again = () => queries.invalidateQueries({ queryKey: ["people"] });
  if (q.error) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Reading…</Waiting>;
  const people = q.data.items;
  return (
    <Room>
      <Row $gap={3}>
        <Fill>
          <h1>People</h1>
        </Fill>
        <Button $kind="main" onPress={() => setAsking(!asking)}>
          {asking ? "Close" : "Invite"}
        </Button>
      </Row>
      {asking && (
        <Invite
          people={people}
          onAsked={async (name, made) => {
            setAsking(false);
            setLink({ name, link: made });
            await again();
          }}
        />
      )}
      {link && <LinkCard {...link} onClose={() => setLink(undefined)} />}
      {people.map((p) => (
        <Person
          key={p.id}
          p={p}
          me={me}
          people={people}
          onChanged={again}
          onLink={(made) => setLink({ name: p.name, link: made })}
        />
      ))}
    </Room>
  );
}

/** A link is shown once: it is kept nowhere. */
function LinkCard({
  name,
  link,
  onClose,
}: {
  name: string;
  link: Schemas["OneTimeLink"];
  onClose: () => void;
}) {
  const url = location.origin + link.path;
  return (
    <Card $gap={3} role="status" data-link>
      <h2>A link for {name}</h2>
      <p className="quiet">
        Give it to {name} alone. It opens once, until {until(link.until)}, and is shown only here and now.
      </p>
      <p className="link">{url}</p>
      <Row>
        <Button $kind="main" onPress={() => void navigator.clipboard?.writeText(url)}>
          Copy it
        </Button>
        <Button onPress={onClose}>Done</Button>
      </Row>
    </Card>
  );
}

function Invite({
  people,
  onAsked,
}: {
  people: Colleague[];
  onAsked: (name: string, link: Schemas["OneTimeLink"]) => void;
}) {
  const { error, fields, busy, run } = useTry();
  const ask = (given: Given) =>
    run(async () =>
      onAsked(
        given.name,
        await must(api.POST("/api/people", { body: { ...given, email: given.email ?? "" } })),
      ),
    );
  return (
    <Card $gap={3}>
      <h2>Invite</h2>
      <PersonForm
        given={nobody}
        withEmail
        people={people}
        fields={fields}
        busy={busy}
        act="Create link"
        onKeep={ask}
      />
      {error?.message && Object.keys(fields).length === 0 && <ErrorPanel error={error} />}
    </Card>
  );
}

interface PersonProps {
  p: Colleague;
  me: Schemas["Me"];
  people: Colleague[];
  onChanged: () => Promise<unknown>;
  onLink: (link: Schemas["OneTimeLink"]) => void;
}

function Person({ p, me, people, onChanged, onLink }: PersonProps) {
  const [open, setOpen] = useState<"edit" | "leave">();
  const { error, fields, busy, run } = useTry();
  const toggle = (what: "edit" | "leave") => setOpen(open === what ? undefined : what);
  const params = { path: { id: p.id } };
  const keep = async (given: Given) => {
    const { email: _, ...body } = given;
    if (await run(async () => must(api.PUT("/api/people/{id}", { params, body })))) {
      setOpen(undefined);
      await onChanged();
    }
  };
  const reset = () =>
    run(async () => {
      onLink(await must(api.POST("/api/people/{id}/reset", { params })));
      await onChanged();
    });
  return (
    <Card $gap={3} data-person={p.name} data-left={!!p.left_at}>
      <Columns $cols="minmax(0, 1fr) auto" $gap={3}>
        <Facts p={p} people={people} />
        {!p.left_at && (
          <Row $wrap $end>
            <Button onPress={() => toggle("edit")}>Change</Button>
            <Button isDisabled={busy} onPress={reset}>
              {p.email ? "New password" : "New link"}
            </Button>
            {p.id !== me.id && <Button onPress={() => toggle("leave")}>Deactivate</Button>}
          </Row>
        )}
      </Columns>
      {error?.message && Object.keys(fields).length === 0 && <ErrorPanel error={error} />}
      {open === "edit" && (
        <PersonForm
          given={givenOf(p)}
          people={people}
          self={p.id}
          fields={fields}
          busy={busy}
          act="Keep"
          onKeep={keep}
        />
      )}
      {open === "leave" && <Leave p={p} people={people} onLeft={onChanged} />}
    </Card>
  );
}

const givenOf = (p: Colleague): Given => ({
  name: p.name,
  role: p.role,
  licence: p.licence ?? "",
  licence_until: p.licence_until ?? "",
  supervisor: p.supervisor,
});

function Facts({ p, people }: { p: Colleague; people: Colleague[] }) {
  const supervisor = people.find((x) => x.id === p.supervisor)?.name;
  const facts = [
    sentence(plain(p.role)),
    p.email,
    supervisor && `supervised by ${supervisor}`,
    p.second_factor && "second factor on",
  ];
  const licence = p.licence_until
    ? `${p.licence ?? "Licence"}, until ${longDate(p.licence_until)}`
    : p.licence;
  return (
    <Stack $gap={1}>
      <h2>{p.name}</h2>
      <span className="quiet">{facts.filter(Boolean).join(" · ")}</span>
      {licence && <span>{licence}</span>}
      {p.licence_expired && <Said $tone="stop">The licence has ended.</Said>}
      {p.licence_soon && <Said $tone="warn">The licence ends within 60 days.</Said>}
      {p.waits === "join" && <Said $tone="warn">Asked to join; the link waits to be used.</Said>}
      {p.waits === "reset" && <Said $tone="warn">A link for a new password waits to be used.</Said>}
      {p.left_at && <Said className="quiet">Left. What was written stays under this name.</Said>}
    </Stack>
  );
}
