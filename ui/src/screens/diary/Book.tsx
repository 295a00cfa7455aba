// An appointment, or a series of them; what stands against it is said before it is
// booked.
import { useQuery } from "@tanstack/react-query";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, Num, Search, ErrorPanel } from "../../parts/controls";
import { Row, Said } from "../../parts/layout";
import { count } from "../../parts/words";
import { longDate } from "../progress/time";
import { Clashes } from "./Clashes";
import { type Begun, useBooking } from "./useBooking";
import { When } from "./When";

interface Props {
  begun: Begun;
  diary: Schemas["Diary"];
  me: Schemas["Me"];
  onBooked: () => void;
}

const weeks = [0, 1, 2, 3, 4] as const;

export function Book({ begun, diary, me, onBooked }: Props) {
  const form = useBooking(begun, diary, me, onBooked);
  const { b, set } = form;
  const clients = useQuery({
    queryKey: ["clients", "", false],
    queryFn: () => must(api.GET("/api/clients", { params: { query: {} } })),
  });
  const names = new Map((clients.data?.items ?? []).map((c) => [c.id, `${c.given_name} ${c.family_name}`]));
  return (
    <Card $gap={3} data-book>
      <h2>Book</h2>
      {names.size > 0 && (
        <Search
          label="Client"
          value={b.client || undefined}
          options={[...names.keys()]}
          describe={(id) => names.get(id) ?? id}
          none="A name"
          onPick={(client) => set({ client: client ?? "" })}
        />
      )}
      {b.client && <Proposed client={b.client} onDay={(date) => set({ date })} />}
      <When slot={b} diary={diary} set={set} />
      <Choice
        label="Repeat"
        value={b.every_weeks ?? 0}
        options={weeks}
        describe={(n) => (n === 0 ? "never" : n === 1 ? "weekly" : `every ${n} weeks`)}
        onChoose={(every_weeks) => set({ every_weeks })}
      />
      {!!b.every_weeks && (
        <Num
          label="Times"
          value={b.times}
          min={2}
          max={52}
          onCommit={(times) => set({ times: times ?? 2 })}
        />
      )}
      <Clashes list={form.clashes} />
      {form.error && <ErrorPanel error={form.error} />}
      {form.done > 0 && (
        <Said role="status" $tone="good">
          Booked: {count(form.done, "appointment")}.
        </Said>
      )}
      <Row $wrap>
        <Button $kind="main" isDisabled={!b.client} onPress={() => void form.book(form.clashes.length > 0)}>
          {form.clashes.length > 0 ? "Book it anyway" : b.every_weeks ? "Book the series" : "Book it"}
        </Button>
        <Button isDisabled={!b.client} onPress={() => void form.wait()}>
          Put on the waiting list
        </Button>
      </Row>
    </Card>
  );
}

/** When the client is to come again, by the latest closed visit. */
function Proposed({ client, onDay }: { client: string; onDay: (date: string) => void }) {
  const q = useQuery({
    queryKey: ["next", client],
    queryFn: () => must(api.GET("/api/clients/{id}/next", { params: { path: { id: client } } })),
  });
  const { from, to } = q.data ?? {};
  if (!from || !to) return null;
  return (
    <Row $wrap data-proposed>
      <Said className="quiet" $small>
        Proposed: {longDate(from)} to {longDate(to)}
      </Said>
      <Button onPress={() => onDay(from)}>Take the first day</Button>
    </Row>
  );
}
