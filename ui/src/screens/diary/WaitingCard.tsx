// Who waits for an appointment, the longest first.
import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Button, Card } from "../../parts/controls";
import { putWaiting } from "./waiting";
import { Plain, Row, Ruled } from "../../parts/layout";

interface Props {
  list: Schemas["WaitingItem"][];
  onBook: (w: Schemas["WaitingItem"]) => void;
}

export function WaitingCard({ list, onBook }: Props) {
  const queries = useQueryClient();
  const off = async (w: Schemas["WaitingItem"]) => {
    await putWaiting(w, true);
    await queries.invalidateQueries({ queryKey: ["diary"] });
  };
  return (
    <Card data-waiting>
      <h2>Waiting list</h2>
      {list.length === 0 && <p className="quiet">Waiting list is empty</p>}
      <Plain>
        {list.map((w) => (
          <Ruled as="li" key={w.id} $cols="minmax(0, 1fr)" $gap={1}>
            <span>
              <b>{w.name}</b>, {w.minutes} min{w.note && `: ${w.note}`}
            </span>
            <Row>
              <Button onPress={() => onBook(w)}>Book</Button>
              <Button onPress={() => void off(w)}>Remove</Button>
            </Row>
          </Ruled>
        ))}
      </Plain>
    </Card>
  );
}
