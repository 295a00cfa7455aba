// The diary: a week or a day, who waits, and the way into an appointment.
import { useQuery } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Choice, ErrorPanel, Waiting } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { isoDay } from "../../parts/words";
import { upright } from "../../theme";
import { longDate } from "../progress/time";
import { Appointment } from "./Appointment";
import { Book } from "./Book";
import type { Begun } from "./useBooking";
import { Grid } from "./Grid";
import { daysOn, hourOf, weekOf } from "./place";
import { WaitingCard } from "./WaitingCard";

const Room = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 18px;
  padding: 18px 24px 40px;
  header {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
  }
  header h1 {
    flex: 1 0 260px;
  }
  .grid {
    overflow: auto;
  }
  .side {
    display: grid;
    gap: 16px;
    align-content: start;
  }
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
    padding: 14px 12px 40px;
  }
`;

type Visit = Schemas["Visit"];

const telephone = "(max-width: 600px)";

/** A telephone has room for a day. */
const useNarrow = () =>
  useSyncExternalStore(
    (changed) => {
      const media = matchMedia(telephone);
      media.addEventListener("change", changed);
      return () => media.removeEventListener("change", changed);
    },
    () => matchMedia(telephone).matches,
  );

export default function Diary({ me }: { me: Schemas["Me"] }) {
  const today = isoDay(new Date(), me.time_zone);
  const { from = today } = useParams();
  const [wanted, setDays] = useState<7 | 1>();
  const narrow = useNarrow();
  const days = wanted ?? (narrow ? 1 : 7);
  const start = days === 7 ? weekOf(from, me.week_starts) : from;
  const q = useQuery({
    queryKey: ["diary", start, days],
    queryFn: () => must(api.GET("/api/diary", { params: { query: { from: start, days } } })),
  });
  return (
    <Room>
      <Head start={start} days={days} today={today} onDays={setDays} />
      {q.error && <ErrorPanel error={q.error} onRetry={() => q.refetch()} />}
      {q.isPending && <Waiting>Looking up the days…</Waiting>}
      {q.data && <Days diary={q.data} me={me} start={start} today={today} />}
    </Room>
  );
}

interface HeadProps {
  start: string;
  days: 7 | 1;
  today: string;
  onDays: (d: 7 | 1) => void;
}

function Head({ start, days, today, onDays }: HeadProps) {
  const go = useNavigate();
  const to = (date: string) => go(`/week/${date}`);
  return (
    <header>
      <h1>
        {days === 7 ? "Week of " : ""}
        {longDate(start)}
      </h1>
      <Choice
        quiet
        label="Shown"
        value={days}
        options={[7, 1] as const}
        describe={(d) => (d === 7 ? "Week" : "Day")}
        onChoose={onDays}
      />
      <Row>
        <Button aria-label="Before" onPress={() => to(daysOn(start, -days))}>
          ‹
        </Button>
        <Button onPress={() => to(today)}>Today</Button>
        <Button aria-label="After" onPress={() => to(daysOn(start, days))}>
          ›
        </Button>
      </Row>
    </header>
  );
}

interface DaysProps {
  diary: Schemas["Diary"];
  me: Schemas["Me"];
  start: string;
  today: string;
}

/** The grid, and beside it what is chosen in it or begun. */
function Days({ diary, me, start, today }: DaysProps) {
  const [whose, setWhose] = useState<string>("all");
  const [chosen, setChosen] = useState<Visit>();
  const [begun, setBegun] = useState<Begun>();
  const selected = diary.visits.find((v) => v.id === chosen?.id);
  const begin = (b: Begun | undefined) => {
    setChosen(undefined);
    setBegun(b);
  };
  const first = diary.days.some((d) => d.date === today) ? today : start;
  return (
    <>
      <div className="grid">
        {diary.people.length > 1 && (
          <Choice
            quiet
            label="Whose"
            value={whose}
            options={["all", ...diary.people.map((p) => p.id)]}
            describe={(id) => diary.people.find((p) => p.id === id)?.name ?? "Everyone"}
            onChoose={setWhose}
          />
        )}
        <Grid
          diary={diary}
          me={me}
          today={today}
          selected={selected?.id}
          shown={(v) => whose === "all" || v.therapist_id === whose}
          onSelect={setChosen}
          onFree={(date, minute) => begin({ date, time: hourOf(minute, 24) })}
        />
      </div>
      <div className="side">
        {selected ? (
          <Appointment
            key={`${selected.id}${selected.revision}`}
            visit={selected}
            diary={diary}
            me={me}
            onClose={() => setChosen(undefined)}
          />
        ) : (
          <Book
            key={JSON.stringify(begun)}
            begun={begun ?? { date: first, time: "09:00" }}
            diary={diary}
            me={me}
            onBooked={() => setBegun(undefined)}
          />
        )}
        <WaitingCard
          list={diary.waiting}
          onBook={(w) =>
            begin({ date: today, time: "09:00", client: w.client, minutes: w.minutes, waiting: w })
          }
        />
      </div>
    </>
  );
}
