import { type QueryClient, queryOptions, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../api/client";
import { now } from "../core/clock";
import { Button, ErrorPanel, Waiting } from "../parts/controls";
import { twoLines } from "../parts/layout";
import { dayWords, isoDay, longDay } from "../parts/words";
import { wallTimeWords } from "../parts/unitPreferences";
import { phone } from "../theme";
import { may } from "../rights";
import { Clashes } from "./diary/Clashes";
import { TrialOffer } from "./trial/Offer";
import { useRebooking } from "./diary/useRebooking";

const Room = styled.div`
  max-width: 980px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  header {
    display: flex;
    align-items: end;
    gap: 10px;
    margin-bottom: 20px;
  }
  header h1 {
    flex: 1;
  }
  > [role="region"] {
    margin-bottom: 20px;
  }
  ${phone} {
    padding: 16px 12px 40px;
    header {
      flex-wrap: wrap;
    }
    header h1 {
      flex: 0 0 100%;
    }
  }
`;
const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
`;
const Row = styled.li<{ $now: boolean }>`
  display: grid;
  grid-template-columns: 86px minmax(0, 1fr) 150px 150px;
  align-items: center;
  gap: 20px;
  padding: 14px 20px;
  background: var(--card);
  border-radius: 14px;
  border: 1px solid ${(p) => (p.$now ? "var(--accent)" : "var(--line-soft)")};
  .at {
    font-size: 24px;
    font-weight: 560;
    font-variant-numeric: tabular-nums;
  }
  .who {
    font-family: var(--serif);
    font-size: 19px;
    font-weight: 560;
    line-height: 1.2;
    ${twoLines}
    text-decoration: none;
    color: var(--ink);
    /* Its touch reaches into the row above and below. */
    padding-block: 11px;
    margin-block: -11px;
  }
  .about {
    min-width: 0;
  }
  .why {
    display: block;
    color: var(--ink-soft);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .go {
    justify-self: end;
    text-decoration: none;
    padding: 11px 18px;
    border-radius: 10px;
    font-weight: 560;
    background: var(--accent);
    color: var(--accent-ink);
  }
  .kept {
    display: grid;
    gap: 6px;
    justify-items: end;
    color: var(--warn);
  }
  .go.plain {
    background: transparent;
    color: var(--accent);
    border: 1px solid var(--line);
  }
  ${phone} {
    grid-template-columns: 68px minmax(0, 1fr);
    gap: 8px 12px;
    padding: 12px 14px;
    > :nth-child(n + 3) {
      grid-column: 2;
      justify-self: start;
    }
  }
`;

type State = "done" | "open" | "booked" | "cancelled" | "no-show";

const state = (v: Schemas["Visit"]): State =>
  v.closed_at ? "done" : v.opened_at ? "open" : (v.status ?? "booked");

const said: Record<State, string> = {
  done: "done",
  open: "in progress",
  booked: "booked",
  cancelled: "Cancelled",
  "no-show": "No-show",
};
const still = new Set<State>(["open", "booked"]);

/** What became of an appointment that is not kept; it can be taken back. */
function NotKept({ v, me }: { v: Schemas["Visit"]; me: Schemas["Me"] }) {
  const { rebook, clashes, error } = useRebooking(v, me);
  return (
    <span className="kept">
      <b>{said[state(v)]}</b>
      <Button onPress={() => void rebook("booked")}>
        {clashes.length > 0 ? "Book it anyway" : "Restore"}
      </Button>
      <Clashes list={clashes} />
      {error && <ErrorPanel error={error} />}
    </span>
  );
}

/** The day so many days from today, by the device's clock; which day today is says the server. */
const dayAt = (shift: number) => new Date(now() + shift * 86_400_000);

const dayQuery = (shift: number, me: Schemas["Me"]) =>
  queryOptions({
    queryKey: ["day", shift],
    queryFn: () => {
      const query = shift === 0 ? {} : { date: isoDay(dayAt(shift), me.time_zone) };
      return must(api.GET("/api/day", { params: { query } }));
    },
  });

export const before = (queries: QueryClient, me: Schemas["Me"]) => queries.prefetchQuery(dayQuery(0, me));

export default function Day({ me }: { me: Schemas["Me"] }) {
  const desk = !may(me, "open-visit");
  const [shift, setShift] = useState(0);
  const q = useQuery(dayQuery(shift, me));
  const next = q.data?.items.find((v) => still.has(state(v)))?.id;
  return (
    <Room>
      <header>
        <h1>{q.data ? dayWords(q.data.date) : longDay(dayAt(shift), me.time_zone)}</h1>
        <Button aria-label="Day before" onPress={() => setShift(shift - 1)}>
          ‹
        </Button>
        <Button isDisabled={shift === 0} onPress={() => setShift(0)}>
          Today
        </Button>
        <Button aria-label="Day after" onPress={() => setShift(shift + 1)}>
          ›
        </Button>
      </header>
      <TrialOffer me={me} />
      {q.error && <ErrorPanel error={q.error} onRetry={() => q.refetch()} />}
      {q.isPending && <Waiting>Looking up the day…</Waiting>}
      {q.data?.items.length === 0 && (
        <p className="quiet">Nobody is booked. A visit can be begun from a client's page.</p>
      )}
      <List>
        {q.data?.items.map((v) => (
          <Row key={v.id} data-day-visit={state(v)} $now={v.id === next && shift === 0}>
            <span className="at">{wallTimeWords(v.starts_at, me)}</span>
            <span className="about">
              {desk ? (
                <span className="who">{v.name}</span>
              ) : (
                <Link className="who" to={`/clients/${v.client}`}>
                  {v.name}
                </Link>
              )}
              <span className="why">{v.reason}</span>
            </span>
            <span className="quiet">
              {v.therapist === me.name ? "with you" : `with ${v.therapist}`}
              <br />
              {v.minutes} min
            </span>
            {state(v) === "cancelled" || state(v) === "no-show" ? (
              <NotKept v={v} me={me} />
            ) : desk ? (
              <span className="quiet">{said[state(v)]}</span>
            ) : (
              <Link
                className={`go ${state(v) === "done" || v.id !== next ? "plain" : ""}`}
                to={`/visits/${v.id}`}
              >
                {state(v) === "done" ? "View" : state(v) === "open" ? "Continue" : "Start"}
              </Link>
            )}
          </Row>
        ))}
      </List>
    </Room>
  );
}
