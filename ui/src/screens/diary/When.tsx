// When, with whom, how long and where.
import type { Schemas } from "../../api/client";
import { Day, Num, Pick, Text } from "../../parts/controls";
import { Columns } from "../../parts/layout";

export interface Slot {
  date: string;
  time: string;
  therapist: string;
  minutes: number;
  room?: string;
}

interface Props {
  slot: Slot;
  diary: Schemas["Diary"];
  set: (over: Partial<Slot>) => void;
}

export function When({ slot, diary, set }: Props) {
  const two = "minmax(0, 1fr) 96px";
  return (
    <>
      <Columns $cols={two} $gap={2}>
        <Day label="Day" name="date" value={slot.date} onChange={(date) => set({ date })} />
        <Text label="Time" value={slot.time} onChange={(time) => set({ time })} />
      </Columns>
      <Columns $cols={two} $gap={2}>
        <Pick
          label="With"
          value={slot.therapist}
          options={diary.people.map((p) => p.id)}
          describe={(id) => diary.people.find((p) => p.id === id)?.name ?? ""}
          none="Choose"
          onPick={(therapist) => therapist && set({ therapist })}
        />
        <Num
          label="Minutes"
          value={slot.minutes}
          min={5}
          max={480}
          onCommit={(minutes) => set({ minutes: minutes ?? 60 })}
        />
      </Columns>
      {diary.rooms.length > 0 && (
        <Pick
          label="Room"
          value={slot.room || undefined}
          options={diary.rooms}
          none="No room"
          onPick={(room) => set({ room: room ?? "" })}
        />
      )}
    </>
  );
}
