// The sequences of the practice: its own to be changed, the shipped ones to be copied.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { useCore } from "../../core/useCore";
import { uuidv7 } from "../../core/ids";
import { Button, Card, ErrorPanel, Failed, Waiting } from "../../parts/controls";
import { Fill, Row, Ruled, Said } from "../../parts/layout";
import { count } from "../../parts/words";
import { may } from "../../rights";
import { copyOf, type Draft, emptyDraft } from "./draft";
import { blockNames, Editor } from "./Editor";
import { placesOf } from "./places";

const Room = styled.div`
  max-width: 980px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  gap: 18px;
`;
const key = ["sequences"];

type Listed = Schemas["Sequences"];

export default function Sequences({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const { core } = useCore();
  const list = useQuery({ queryKey: key, queryFn: () => must(api.GET("/api/sequences")) });
  const [open, setOpen] = useState<{ id: string; draft: Draft }>();
  const [error, setError] = useState<Error>();
  if (list.error) return <Failed error={list.error} onRetry={() => void list.refetch()} />;
  if (!list.data || !core) return <Waiting>Reading the sequences…</Waiting>;
  const { own, techniques, regions } = list.data;
  const taken = (all: Listed) => {
    queries.setQueryData(key, all);
    setOpen(undefined);
  };
  const edits = may(me, "put-sequence");
  if (open)
    return (
      <Room>
        <h1>{open.id in own ? "Change a sequence" : "New sequence"}</h1>
        <Editor
          key={open.id}
          id={open.id}
          draft={open.draft}
          techniques={techniques}
          places={placesOf(core, regions)}
          onSave={async (body) =>
            taken(await must(api.PUT("/api/sequences/{id}", { params: { path: { id: open.id } }, body })))
          }
          onDelete={
            open.id in own
              ? () =>
                  must(api.DELETE("/api/sequences/{id}", { params: { path: { id: open.id } } })).then(
                    taken,
                    setError,
                  )
              : undefined
          }
          onLeave={() => setOpen(undefined)}
        />
        {error && <ErrorPanel error={error} />}
      </Room>
    );
  return <Lists listed={list.data} edits={edits} onOpen={(id, draft) => setOpen({ id, draft })} />;
}

interface ListsProps {
  listed: Listed;
  edits: boolean;
  onOpen: (id: string, draft: Draft) => void;
}

function Lists({ listed: { shipped, own }, edits, onOpen }: ListsProps) {
  return (
    <Room>
      <Row $wrap>
        <Fill>
          <h1>Sequences</h1>
          <Said className="quiet">
            What is done around the holds, step by step. The plan of a visit offers them for the points of
            that visit, with what is ruled out for the client left out.
          </Said>
        </Fill>
        {edits && (
          <Button $kind="main" onPress={() => onOpen(uuidv7(), emptyDraft)}>
            New sequence
          </Button>
        )}
      </Row>
      <Card data-own-sequences>
        <h2>Ours</h2>
        {Object.keys(own).length === 0 && (
          <Said className="quiet">None yet. Copy one below and change what you do otherwise.</Said>
        )}
        {Object.entries(own)
          .sort(([, a], [, b]) => a.name.localeCompare(b.name))
          .map(([id, o]) => (
            <Entry key={id} name={o.name} about={aboutOf(o)}>
              {edits && <Button onPress={() => onOpen(id, o)}>Edit</Button>}
            </Entry>
          ))}
      </Card>
      <Card data-shipped-sequences>
        <h2>Shipped</h2>
        {shipped.map((s) => (
          <Entry key={s.id} name={s.name} about={`${s.for} ${aboutOf(s)}`}>
            {edits && (
              <Button aria-label={`Copy and change: ${s.name}`} onPress={() => onOpen(uuidv7(), copyOf(s))}>
                Copy and change
              </Button>
            )}
          </Entry>
        ))}
      </Card>
    </Room>
  );
}

const aboutOf = (s: Pick<Draft, "block" | "steps">) =>
  `${blockNames[s.block]}, ${count(s.steps.length, "step")}.`;

function Entry({ name, about, children }: { name: string; about: string; children: React.ReactNode }) {
  return (
    <Ruled $cols="minmax(0, 1fr) auto" $align="center" $gap={3} data-sequence={name}>
      <span>
        <b>{name}</b>
        <br />
        <span className="quiet">{about}</span>
      </span>
      {children}
    </Ruled>
  );
}
