// The rooms that appointments are booked in.
import { useState } from "react";
import { Button, Card, Text } from "../../parts/controls";
import { Row } from "../../parts/layout";

export function Rooms({ rooms, onKeep }: { rooms: string[]; onKeep: (r: string[]) => void }) {
  const [name, setName] = useState("");
  const add = name.trim();
  return (
    <Card $gap={3} data-rooms>
      <h2>Rooms</h2>
      {rooms.map((r) => (
        <Row key={r} $gap={3}>
          <span>{r}</span>
          <Button onPress={() => onKeep(rooms.filter((x) => x !== r))}>Remove {r}</Button>
        </Row>
      ))}
      <Row $align="end" $gap={3}>
        <Text label="Another room" value={name} onChange={setName} />
        <Button
          isDisabled={!add || rooms.includes(add)}
          onPress={() => {
            onKeep([...rooms, add]);
            setName("");
          }}
        >
          Add it
        </Button>
      </Row>
    </Card>
  );
}
