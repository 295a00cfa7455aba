// The protocols of the practice: which is the default, and own copies tuned
// within bounds, each with its reason.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { Button, Card, Pick, ErrorPanel, Waiting } from "../../parts/controls";
import { Fill, Row, Said } from "../../parts/layout";
import { ProtocolForm } from "./ProtocolForm";
import { numberName, numberWords } from "./protocolWords";

type Own = Schemas["OwnProtocol"];

interface Props {
  standard: Schemas["ProtocolID"];
  onStandard: (p: Schemas["ProtocolID"]) => void;
}

const key = ["protocols"];

export function Protocols({ standard, onStandard }: Props) {
  const queries = useQueryClient();
  const list = useQuery({ queryKey: key, queryFn: () => must(api.GET("/api/protocols")) });
  const [open, setOpen] = useState<{ id: string; own: Own }>();
  const [error, setError] = useState<Error>();
  if (list.error) return <ErrorPanel error={list.error} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Waiting>Reading the protocols…</Waiting>;
  const { shipped, own } = list.data;
  const find = (p: Schemas["ProtocolID"]) => shipped.find((s) => s.protocol === p);
  const keep = async (call: Promise<Schemas["Protocols"]>) => {
    setError(undefined);
    try {
      queries.setQueryData(key, await call);
      setOpen(undefined);
    } catch (e) {
      setError(e as Error);
    }
  };
  const put = (id: string, body: Own) =>
    keep(must(api.PUT("/api/protocols/{id}", { params: { path: { id } }, body })));
  const drop = (id: string) => keep(must(api.DELETE("/api/protocols/{id}", { params: { path: { id } } })));
  const protocol = open && find(open.own.protocol);
  return (
    <Card $gap={3} data-protocols>
      <h2>Protocols</h2>
      <p className="quiet">
        A point gets the protocol that its site, the screening and the record call for; where nothing speaks
        for another, the practice's default.
      </p>
      <Pick
        label="Default"
        none="Graded stages"
        value={standard === "graded-stages" ? undefined : standard}
        options={shipped.map((s) => s.protocol).filter((p) => p !== "graded-stages")}
        describe={(p) => find(p)?.name ?? p}
        onPick={(p) => onStandard(p ?? "graded-stages")}
      />
      {Object.entries(own).map(([id, o]) => (
        <Row key={id} data-own={o.name}>
          <Fill>
            <b>{o.name}</b> <span className="quiet">after {find(o.protocol)?.name}</span>
            <br />
            <span className="quiet">
              {Object.entries(o.numbers)
                .map(([n, v]) => `${numberName(n)} ${numberWords(n, v)}`)
                .join(" · ")}
            </span>
          </Fill>
          <Button onPress={() => setOpen({ id, own: o })}>Edit</Button>
        </Row>
      ))}
      {error && <ErrorPanel error={error} />}
      {open && protocol ? (
        <ProtocolForm
          key={open.id}
          protocol={protocol}
          own={open.own}
          onKeep={(o) => void put(open.id, o)}
          onDrop={open.id in own ? () => void drop(open.id) : undefined}
          onLeave={() => setOpen(undefined)}
        />
      ) : (
        <Pick
          label="Create your own version of"
          none="Choose a protocol"
          value={undefined}
          options={shipped.filter((s) => s.tunable.length > 0).map((s) => s.protocol)}
          describe={(p) => find(p)?.name ?? p}
          onPick={(protocol) =>
            protocol &&
            setOpen({ id: uuidv7(), own: { protocol, name: "", numbers: { ...find(protocol)?.numbers } } })
          }
        />
      )}
      <Said className="quiet" $small>
        No copy goes above a protocol's ceilings. A hold keeps the plan that it was begun with.
      </Said>
    </Card>
  );
}
