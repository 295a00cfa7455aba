// The next visit, booked from the proposal: a day, and it is booked, at the hour of this one.
import { useState } from "react";
import { Link } from "react-router";
import { api, must, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { Button, Choice, ErrorPanel } from "../../parts/controls";
import { Row, Said, Stack } from "../../parts/layout";
import { isoDay, time as timeOf } from "../../parts/words";
import { weekDate } from "../progress/time";
import { Clashes } from "../diary/Clashes";
import type { StepProps } from "./StepProps";

interface Props extends StepProps {
  next: Schemas["NextVisit"];
  me: Schemas["Me"];
}

const dayMS = 24 * 3_600_000;

export function BookNext({ visit, next, me }: Props) {
  const v = visit.open.visit;
  const starts = Date.parse(v.starts_at);
  const time = timeOf(v.starts_at, me.time_zone);
  const days = next.offer_days.map((d) => isoDay(new Date(starts + d * dayMS), me.time_zone));
  const [date, setDate] = useState<string>();
  const [id, setId] = useState(uuidv7);
  const [clashes, setClashes] = useState<Schemas["Clash"][]>([]);
  const [booked, setBooked] = useState("");
  const [error, setError] = useState<Error>();
  const choose = (d: string) => {
    setDate(d);
    setClashes([]);
    setBooked("");
    setError(undefined);
  };
  const book = async (anyway: boolean) => {
    if (!date || !v.therapist_id) return;
    setError(undefined);
    try {
      const body = {
        id,
        client: visit.open.client.id,
        therapist: v.therapist_id,
        date,
        time,
        minutes: v.minutes,
        ...(v.room ? { room: v.room } : {}),
        anyway,
      };
      const got = await must(api.POST("/api/bookings", { body }));
      setClashes(got.visits.length ? [] : got.clashes);
      if (got.visits.length === 0) return;
      setBooked(`Booked: ${weekDate(date)}, ${time}.`);
      setId(uuidv7());
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Stack $gap={3} data-book-next>
      <Choice
        label={`Book it, at ${time}`}
        value={date}
        options={days}
        describe={weekDate}
        onChoose={choose}
      />
      <Clashes list={clashes} />
      {error && <ErrorPanel error={error} />}
      <Row $wrap>
        {booked ? (
          <Said role="status" $tone="good">
            {booked}
          </Said>
        ) : (
          <Button $kind="main" isDisabled={!date} onPress={() => void book(clashes.length > 0)}>
            {clashes.length > 0 ? "Book it anyway" : "Book it"}
          </Button>
        )}
        <Link className="stands" to={`/week/${date ?? days[0]}`}>
          Another time
        </Link>
      </Row>
    </Stack>
  );
}
