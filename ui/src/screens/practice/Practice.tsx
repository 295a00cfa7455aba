// What the owner sets for the whole practice.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Card, Choice, ErrorPanel } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { Calendar } from "./Calendar";
import { Records } from "./Records";
import { Emergency } from "./Emergency";
import { Letterhead } from "./Letterhead";
import { PriceList } from "./PriceList";
import { Rooms } from "./Rooms";
import { Protocols } from "./Protocols";

const Room = styled.div`
  max-width: 760px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  gap: 18px;
`;

const hours = [0, 8, 24, 72, 168] as const;
const inWords: Record<number, string> = {
  0: "no copies",
  8: "8 hours",
  24: "a day",
  72: "3 days",
  168: "a week",
};
const minutes = [10, 30, 60, 120, 0] as const;
const weekdays: Record<number, string> = { 0: "Sunday", 1: "Monday", 6: "Saturday" };

type Settings = Schemas["PracticeSettings"];

export default function Practice({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [error, setError] = useState<Error>();
  const keep = async (own: Partial<Settings>) => {
    setError(undefined);
    const { copy_hours, idle_minutes, protocol, units, clock_hours, week_starts, rooms, emergency_number } =
      me;
    const now = {
      copy_hours,
      idle_minutes,
      protocol,
      units,
      clock_hours,
      week_starts,
      rooms,
      emergency_number,
    } as Settings;
    try {
      await must(api.PUT("/api/practice", { body: { ...now, ...own } }));
      await queries.invalidateQueries({ queryKey: ["me"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Room>
      <Row>
        <Fill>
          <h1>{me.practice}</h1>
        </Fill>
        <Link className="stands" to="/sequences">
          Sequences
        </Link>
        <Link className="stands" to="/practice/people">
          People
        </Link>
        <Link className="stands" to="/practice/audit">
          Who did what (audit)
        </Link>
      </Row>
      {error && <ErrorPanel error={error} />}
      <Letterhead />
      <UnitsAndFormats me={me} keep={keep} />
      <Emergency number={me.emergency_number} onKeep={(n) => void keep({ emergency_number: n })} />
      <Rooms rooms={me.rooms} onKeep={(rooms) => void keep({ rooms })} />
      <Calendar />
      <PriceList />
      <Records me={me} />
      <Card $gap={3}>
        <h2>Copies of visits on a device</h2>
        <p className="quiet">
          A visit that was opened on a device can be opened there again when there is no connection at all.
          Its copy is sealed, opens only for the person who opened it, and is gone when that person signs out.
        </p>
        <Choice
          label="Keep them for"
          value={me.copy_hours}
          options={hours.includes(me.copy_hours as never) ? hours : [...hours, me.copy_hours]}
          describe={(h) => inWords[h] ?? `${h} hours`}
          onChoose={(copy_hours) => void keep({ copy_hours })}
        />
      </Card>
      <Card $gap={3}>
        <h2>Automatic sign-out</h2>
        <p className="quiet">
          A device that nobody touches signs itself out, but never while a hold runs. What was not sent yet is
          kept, and whoever signs in again is where they were.
        </p>
        <Choice
          label="After"
          value={me.idle_minutes}
          options={minutes.includes(me.idle_minutes as never) ? minutes : [...minutes, me.idle_minutes]}
          describe={(m) => (m === 0 ? "never" : `${m} minutes`)}
          onChoose={(idle_minutes) => void keep({ idle_minutes })}
        />
      </Card>
      <Protocols standard={me.protocol} onStandard={(protocol) => void keep({ protocol })} />
    </Room>
  );
}

/** How lengths, times and weeks are written; what is kept does not change. */
function UnitsAndFormats({ me, keep }: { me: Schemas["Me"]; keep: (own: Partial<Settings>) => void }) {
  return (
    <Card $gap={3}>
      <h2>Units and formats</h2>
      <Choice
        label="Lengths and weights"
        value={me.units}
        options={["metric", "imperial"] as const}
        describe={(u) => (u === "metric" ? "cm, kg" : "in, lb")}
        onChoose={(units) => keep({ units })}
      />
      <Choice
        label="Time of day"
        value={me.clock_hours}
        options={[24, 12] as const}
        describe={(h) => (h === 24 ? "14:30" : "2:30 pm")}
        onChoose={(clock_hours) => keep({ clock_hours })}
      />
      <Choice
        label="A week begins on"
        value={me.week_starts}
        options={[1, 0, 6]}
        describe={(d) => weekdays[d] ?? ""}
        onChoose={(week_starts) => keep({ week_starts: week_starts as Settings["week_starts"] })}
      />
    </Card>
  );
}
