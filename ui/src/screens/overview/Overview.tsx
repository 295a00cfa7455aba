// What waits to be looked at: notes, clients who are due, spots that ask for
// something, one's own hands.
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Card, Failed, Waiting } from "../../parts/controls";
import { Plain, Ruled, Said, Stack } from "../../parts/layout";
import { count, day, movementName, one } from "../../parts/words";
import { upright } from "../../theme";
import { longDate } from "../progress/time";
import { Outcomes } from "./Outcomes";
import { may } from "../../rights";

const Room = styled.div`
  max-width: 1180px;
  margin: 0 auto;
  padding: 26px 28px 60px;
  display: grid;
  gap: 18px;
  .cards {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 18px;
    align-items: start;
  }
  ${upright} {
    padding: 16px 12px 40px;
    .cards {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

const signalWord: Record<string, string> = {
  worse: "worse at two visits",
  plateau: "plateau",
  resolved: "let go for good",
};

export default function Overview({ me }: { me: Schemas["Me"] }) {
  const q = useQuery({ queryKey: ["view"], queryFn: () => must(api.GET("/api/practice/view")) });
  if (q.error) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Looking what waits…</Waiting>;
  const { unsigned, licences, due, watched, load, today } = q.data;
  return (
    <Room>
      <h1>To do</h1>
      <div className="cards">
        <Stack $gap={4}>
          <Due due={due} />
          <Notes notes={unsigned} me={me} />
        </Stack>
        <Stack $gap={4}>
          {licences.length > 0 && <Licences list={licences} />}
          <Watched spots={watched} />
          <Hands load={load} today={today} />
        </Stack>
      </div>
      {may(me, "outcomes") && <Outcomes />}
    </Room>
  );
}

function Due({ due }: { due: Schemas["DueClient"][] }) {
  return (
    <Card data-due>
      <h2>Due, not booked</h2>
      {due.length === 0 && <p className="quiet">Everyone who is due has an appointment.</p>}
      <Plain>
        {due.map((d) => (
          <Ruled as="li" key={d.client} $cols="minmax(0, 1fr) auto" $gap={3}>
            <span>
              <Link className="stands" to={`/clients/${d.client}`}>
                {d.name}
              </Link>
              <span className="quiet small">{againWords(d.rechecks)}</span>
            </span>
            <Said as="span" $tone={d.over ? "warn" : undefined}>
              {d.over ? "since " : "until "}
              {longDate(d.to)}
            </Said>
          </Ruled>
        ))}
      </Plain>
    </Card>
  );
}

/** So many rechecks are named; the others are counted. */
const named = 3;

/** ": Upper trapezius, left (4 of 10); Neck: rotation, right (60°); 2 more". */
function againWords(list: Schemas["Recheck"][]) {
  if (list.length === 0) return "";
  const words = list
    .slice(0, named)
    .map((r) =>
      r.movement
        ? `${movementName(r.movement)}, ${r.side} (${Math.round(r.value)}°)`
        : `${r.name}, ${r.side} (${one(r.value)} of 10)`,
    );
  const more = list.length > named ? [`${list.length - named} more`] : [];
  return `: ${[...words, ...more].join("; ")}`;
}

function Watched({ spots }: { spots: Schemas["WatchedSpot"][] }) {
  return (
    <Card data-watched>
      <h2>Points that need a decision</h2>
      {spots.length === 0 && <p className="quiet">No point has plateaued or got worse.</p>}
      <Plain>
        {alike(spots).map((list) => (
          <Ruled as="li" key={`${list[0]?.client}${list[0]?.next}`} $cols="minmax(0, 1fr)" $gap={1}>
            <Link className="stands" to={`/clients/${list[0]?.client}/progress`}>
              {list[0]?.name}
            </Link>
            {list.map((s) => (
              <Spot key={s.muscle + s.side} s={s} />
            ))}
            <span className="quiet small">{list[0]?.next}</span>
          </Ruled>
        ))}
      </Plain>
    </Card>
  );
}

function Spot({ s }: { s: Schemas["WatchedSpot"] }) {
  const tone = s.signal === "worse" ? "stop" : s.signal === "plateau" ? "warn" : "good";
  return (
    <span>
      {s.muscle}, {s.side}: {one(s.first)} → {one(s.last)},{" "}
      <Said as="b" $tone={tone}>
        {signalWord[s.signal]}
      </Said>
    </span>
  );
}

/** A client's spots for which the same is to be done. */
function alike(spots: Schemas["WatchedSpot"][]) {
  const out = new Map<string, Schemas["WatchedSpot"][]>();
  for (const s of spots) {
    const key = s.client + s.next;
    out.set(key, [...(out.get(key) ?? []), s]);
  }
  return [...out.values()];
}

function Notes({ notes, me }: { notes: Schemas["UnsignedNote"][]; me: Schemas["Me"] }) {
  const counters = may(me, "note-countersigned");
  return (
    <Card data-unsigned>
      <h2>Notes to sign</h2>
      {notes.length === 0 && <p className="quiet">Every closed visit has its note signed.</p>}
      {notes.length > 0 && <p className="quiet">{count(notes.length, "closed visit")}, the oldest first.</p>}
      <Plain>
        {notes.slice(0, 12).map((n) => (
          <Ruled as="li" key={n.visit} $cols="64px minmax(0, 1fr) auto" $gap={3}>
            <span className="num">{day(n.starts_at, me.time_zone)}</span>
            <Link className="stands" to={`/visits/${n.visit}?step=close`}>
              {n.name}
            </Link>
            <span className="quiet">
              {n.therapist}
              {n.awaits_counter && (counters ? ": to countersign" : ": waits for the second name")}
            </span>
          </Ruled>
        ))}
      </Plain>
    </Card>
  );
}

function Licences({ list }: { list: Schemas["EndingLicence"][] }) {
  return (
    <Card data-licences>
      <h2>Licences</h2>
      <Plain>
        {list.map((l) => (
          <Ruled as="li" key={l.name} $cols="minmax(0, 1fr) auto" $gap={3}>
            <span>
              {l.name}
              {l.licence && <span className="quiet small">: {l.licence}</span>}
            </span>
            <Said as="span" $tone={l.expired ? "stop" : "warn"}>
              {l.expired ? "ended after " : "ends after "}
              {longDate(l.until)}
            </Said>
          </Ruled>
        ))}
      </Plain>
    </Card>
  );
}

function Hands({ load, today }: { load: Schemas["Load"]; today: number }) {
  const now = load.days.find((d) => d.day === today)?.thumb_minutes ?? 0;
  return (
    <Card data-hands>
      <h2>Your hands</h2>
      <p>
        Today <b className="num">{one(now)}</b> of {one(load.limit_minutes)} thumb-minutes.
        <br />
        These seven days <b className="num">{one(load.week_thumb_minutes)}</b>.
      </p>
      <Said className="quiet" $small>
        Only you see this. A working value: pressing with elbow, forearm or tool counts less.
      </Said>
    </Card>
  );
}
