// The cards of a client's page.
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, Card } from "../../parts/controls";
import { Row, Said } from "../../parts/layout";
import { clock, count, day, one } from "../../parts/words";
import { areaName, consentWords } from "../visit/consentWords";
import { type More, Older } from "./Older";

interface Props {
  course: Schemas["Course"];
  zone: string;
  onAll: More["onAll"];
}

export function Cards({ course, zone, onAll }: Props) {
  const { client: c, history, visits, consents, last_points } = course;
  return (
    <>
      {c.cautions?.map((x) => (
        <div key={x} className="caution" role="note">
          {x}
        </div>
      ))}
      <InTheirWords c={c} soles={last_points.filter((p) => p.view.startsWith("sole")).length} />
      <Followed points={history.points} />
      {consents.length > 0 && <Consents list={consents} />}
      <Card>
        <h2>Visits</h2>
        <ul className="visits">
          {[...visits].reverse().map((v) => (
            <li key={v.id}>
              <span className="num">{day(v.starts_at, zone)}</span>
              <span className="quiet">
                {v.reason} · {v.therapist}
              </span>
              <Link className="stands" to={`/visits/${v.id}`}>
                {v.closed_at ? "View" : v.opened_at ? "Continue" : "Booked"}
              </Link>
            </li>
          ))}
        </ul>
        {course.older > 0 && <Older older={course.older} onAll={onAll} />}
      </Card>
    </>
  );
}

function InTheirWords({ c, soles }: { c: Schemas["Client"]; soles: number }) {
  const contact = [
    c.phone,
    c.email,
    c.emergency_contact && `emergency: ${c.emergency_contact}`,
    c.guardian && `guardian: ${c.guardian}`,
  ].filter(Boolean);
  return (
    <Card>
      {contact.length > 0 && <p className="quiet">{contact.join(" · ")}</p>}
      <h2>In their words</h2>
      <Said $lead>{c.complaint ? `“${c.complaint}”` : "Nothing noted yet."}</Said>
      {soles > 0 && <p className="quiet">{count(soles, "point")} on the soles, not shown here.</p>}
    </Card>
  );
}

const toneOf = { better: "good", worse: "stop" } as const;

/** Every point with its last numbers and what became of it. */
function Followed({ points }: { points: Schemas["PointHistory"][] }) {
  return (
    <Card>
      <h2>Points followed</h2>
      {points.length === 0 && (
        <p className="quiet">
          No point charted yet. The first visit begins with the interview and measuring.
        </p>
      )}
      <ul className="visits points">
        {points.map((p) => {
          const l = p.visits.at(-1);
          const tone = toneOf[p.number?.direction as keyof typeof toneOf];
          return (
            <li key={p.identity}>
              <span>
                <b>{p.name}</b>, {p.side}
                <br />
                <span className="quiet">{p.site}</span>
              </span>
              <span className="num">
                {one(l?.before)} → {one(l?.after)}
                <span className="quiet"> of 10</span>
                <br />
                <span className="quiet">{clock(l?.seconds ?? 0)} pressed</span>
              </span>
              <Said as="span" $tone={tone} className={tone ? undefined : "quiet"}>
                {p.number ? p.number.text : "first time"}
                {p.number?.signal === "plateau" ? " · plateau" : ""}
              </Said>
            </li>
          );
        })}
      </ul>
    </Card>
  );
}

/** Consents by the day of their visit, the latest first. */
const byDate = (list: Schemas["DatedConsent"][]) =>
  [...new Set(list.map((c) => c.date))].map((date) => [date, list.filter((c) => c.date === date)] as const);

const atFirst = 3;

function Consents({ list }: { list: Schemas["DatedConsent"][] }) {
  const [all, setAll] = useState(false);
  const days = byDate(list);
  return (
    <Card data-consents>
      <h2>Consents</h2>
      <ul className="visits consents">
        {days.slice(0, all ? undefined : atFirst).map(([date, of]) => (
          <li key={date}>
            <span className="num">{day(`${date}T12:00:00Z`, "UTC")}</span>
            <span className="quiet">
              {of.map((x) => `${areaName(x.area)}: ${consentWords(x)}`).join(" · ")}
            </span>
          </li>
        ))}
      </ul>
      {days.length > atFirst && (
        <Row>
          <Button onPress={() => setAll(!all)}>{all ? "The latest only" : "All of them"}</Button>
        </Row>
      )}
    </Card>
  );
}
