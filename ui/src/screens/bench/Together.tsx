// Whether two find the same: two visits of one client compared, and the same pressure again and again.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { useCourse } from "../../api/queries";
import { Button, Card } from "../../parts/controls";
import { Ruled, Said, Stack } from "../../parts/layout";
import { Pick, Search as Find } from "../../parts/Pick";
import { useTry } from "../../parts/useTry";
import { count, longDay, movementName, plain, sentence } from "../../parts/words";
import { may } from "../../rights";
import { SamePressure } from "./SamePressure";

type Compared = Schemas["AgreementOut"];

export function Together({ me }: { me: Schemas["Me"] }) {
  return (
    <div className="two">
      {may(me, "visit-agreement") ? <TwoVisits /> : <span />}
      <SamePressure />
    </div>
  );
}

/** Two people who examined one client, without sight of each other. */
function TwoVisits() {
  const clients = useQuery({
    queryKey: ["clients", "", "bench"],
    queryFn: () => must(api.GET("/api/clients", { params: { query: {} } })),
  });
  const [client, setClient] = useState<string>();
  const [picked, setPicked] = useState<Picked>({});
  const { first, second } = picked;
  const [out, setOut] = useState<Compared>();
  const { error, busy, run } = useTry();
  const compare = () =>
    run(async () => {
      if (!first || !second) return;
      setOut(
        await must(
          api.POST("/api/visits/{id}/agreement", {
            params: { path: { id: first } },
            body: { visit: second },
          }),
        ),
      );
    });
  return (
    <Stack $gap={4}>
      <Card data-agreement>
        <h2>Do two find the same?</h2>
        <Said className="quiet">
          A colleague who is examined is a client: with consent, screening and a record. Two examine without
          sight of each other, at least ten minutes apart, at most eight points; take turns in who begins.
        </Said>
        <Find
          label="Who was examined"
          none="A client by name"
          value={client}
          options={clients.data?.items.map((c) => c.id) ?? []}
          describe={(id) => {
            const c = clients.data?.items.find((x) => x.id === id);
            return c ? `${c.given_name} ${c.family_name}` : id;
          }}
          onPick={(id) => {
            setClient(id);
            setPicked({});
            setOut(undefined);
          }}
        />
        {client && <WhichVisits client={client} picked={picked} onPick={setPicked} />}
        {error && (
          <Said $tone="stop" role="alert">
            {Object.values(error.fields)[0] ?? error.message}
          </Said>
        )}
        <Button $kind="main" isDisabled={!first || !second || busy} onPress={() => void compare()}>
          Compare
        </Button>
      </Card>
      {out && <Agreement out={out} />}
    </Stack>
  );
}

interface Picked {
  first?: string;
  second?: string;
}

interface PickedProps {
  client: string;
  picked: Picked;
  onPick: (p: Picked) => void;
}

/** The two visits of a client, by their days. */
function WhichVisits({ client, picked, onPick }: PickedProps) {
  const visits = useCourse(client).data?.visits ?? [];
  const nameOf = (id: string) => {
    const v = visits.find((x) => x.id === id);
    return v ? longDay(new Date(v.starts_at), "UTC") : id;
  };
  const ids = visits.map((v) => v.id);
  return (
    <>
      <Pick
        label="First examination"
        none="Which visit"
        value={picked.first}
        options={ids}
        describe={nameOf}
        onPick={(first) => onPick({ ...picked, first })}
      />
      <Pick
        label="Second examination"
        none="Which visit"
        value={picked.second}
        options={ids.filter((id) => id !== picked.first)}
        describe={nameOf}
        onPick={(second) => onPick({ ...picked, second })}
      />
    </>
  );
}

const measureNames: Record<string, string> = {
  band: "Taut band",
  familiar: "The client's own pain",
  grade: "Tenderness",
  nprs: "Number",
  "ppt-kpa": "Pressure pain threshold",
};

const measureName = (id: string) =>
  id.startsWith("rom.") ? movementName(id.slice(4)) : (measureNames[id] ?? sentence(plain(id)));

function Agreement({ out }: { out: Compared }) {
  const m = out.matching;
  return (
    <Card data-agreed>
      {m && (
        <>
          <h2>Points</h2>
          <Said $lead>{m.text}</Said>
          <Ruled $cols="minmax(0, 1fr) auto">
            <span>Found by both</span>
            <b>{m.both}</b>
            <span>By the first only</span>
            <b>{m.first_only}</b>
            <span>By the second only</span>
            <b>{m.second_only}</b>
          </Ruled>
        </>
      )}
      {Object.entries(out.measures).map(([id, r]) => (
        <Stack key={id} $gap={1}>
          <h3>{measureName(id)}</h3>
          <Said>{r.text}</Said>
          <Said className="quiet" $small>
            {count(r.n, "pair")}
          </Said>
        </Stack>
      ))}
      {Object.keys(out.measures).length === 0 && (
        <Said className="quiet">No number was taken by both, so no further measure can be given.</Said>
      )}
    </Card>
  );
}
