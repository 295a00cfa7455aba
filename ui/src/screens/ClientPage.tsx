import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../api/client";
import type { View } from "../body/BodySvg";
import { Figure } from "../body/Figure";
import { toMark } from "../body/marks";
import { uuidv7 } from "../core/ids";
import { Button, Card, Trouble, Waiting } from "../parts/controls";
import { clock, day, one } from "../parts/words";
import { ClientForm } from "./Clients";
import { areaName, consentWords } from "./visit/Consent";
import { Progress } from "./Progress";

const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: clamp(520px, 44vw, 900px) minmax(0, 1fr);
  gap: 20px;
  padding: 18px 24px;
  min-height: 640px;
  .bodies {
    height: 100%;
    min-height: 0;
    padding: 12px;
    display: grid;
    grid-template-columns: 1fr 1fr;
    grid-template-rows: minmax(0, 1fr);
  }
  .side {
    overflow: auto;
    display: grid;
    gap: 16px;
    align-content: start;
    min-height: 0;
    padding-right: 4px;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 4px 14px;
    margin: 10px 0 0;
  }
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
  }
  .caution {
    background: var(--warn-soft);
    color: var(--warn);
    border-radius: 10px;
    padding: 9px 13px;
    font-weight: 520;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  .visits li {
    display: grid;
    grid-template-columns: 74px minmax(0, 1fr) auto;
    gap: 14px;
    padding: 9px 0;
    border-top: 1px solid var(--line-soft);
    align-items: baseline;
  }
  .visits li:first-child {
    border-top: 0;
  }
`;
const Tabs = styled.nav`
  display: flex;
  gap: 4px;
  a {
    text-decoration: none;
    padding: 7px 14px;
    border-radius: 9px;
    color: var(--ink-soft);
    font-weight: 560;
  }
  a[aria-current] {
    background: var(--accent-soft);
    color: var(--accent);
  }
`;

/** Consents by the day of their visit, the latest first. */
const byDate = (list: Schemas["DatedConsent"][]) =>
  [...new Set(list.map((c) => c.date))].map((date) => [date, list.filter((c) => c.date === date)] as const);

export function ClientPage({ me }: { me: Schemas["Me"] }) {
  const { id = "", tab } = useParams();
  const go = useNavigate();
  const queries = useQueryClient();
  const [editing, setEditing] = useState(false);
  const [allConsents, setAllConsents] = useState(false);
  const [error, setError] = useState<Error>();
  const q = useQuery({
    queryKey: ["course", id],
    queryFn: () => must(api.GET("/api/clients/{id}", { params: { path: { id } } })),
  });
  if (q.error && !q.data)
    return (
      <div style={{ padding: 24 }}>
        <Trouble error={q.error} onRetry={() => q.refetch()} />
      </div>
    );
  if (!q.data) return <Waiting>Opening the record…</Waiting>;
  const { client: c, visits, history, last_points } = q.data;
  const begin = async () => {
    const visit = uuidv7();
    try {
      await must(
        api.PUT("/api/visits/{id}", {
          params: { path: { id: visit } },
          body: {
            id: visit,
            client: id,
            starts_at: new Date().toISOString(),
            minutes: 60,
            reason: c.complaint ?? "",
          },
        }),
      );
      go(`/visits/${visit}`);
    } catch (e) {
      setError(e as Error);
    }
  };
  const archive = async (away: boolean) => {
    try {
      const path = { params: { path: { id } } };
      await must(
        away ? api.POST("/api/clients/{id}/archive", path) : api.POST("/api/clients/{id}/restore", path),
      );
      setEditing(false);
      await queries.invalidateQueries({ queryKey: ["course", id] });
      void queries.invalidateQueries({ queryKey: ["clients"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  const booked = visits.find(
    (v) => !v.closed_at && Math.abs(Date.parse(v.starts_at) - Date.now()) < 12 * 3600_000,
  );
  const head = (
    <Card style={{ padding: "16px 20px" }}>
      <div style={{ display: "flex", gap: 12, alignItems: "start" }}>
        <div style={{ flex: 1, minWidth: 0 }}>
          <h1 style={{ overflowWrap: "anywhere" }}>
            {c.given_name} {c.family_name}
          </h1>
          <p className="quiet">
            {[c.age !== undefined && `${c.age} years`, c.height_cm && `${c.height_cm} cm`, c.work]
              .filter(Boolean)
              .join(" · ")}
          </p>
        </div>
        <Button onPress={() => setEditing(!editing)}>{editing ? "Close" : "Edit"}</Button>
        {booked ? (
          <Button $kind="main" onPress={() => go(`/visits/${booked.id}`)}>
            {booked.opened_at ? "Go on with the visit" : "Open today's visit"}
          </Button>
        ) : (
          <Button $kind="main" onPress={begin}>
            Begin a visit
          </Button>
        )}
      </div>
      {c.archived && (
        <p
          role="status"
          className="caution"
          style={{ display: "flex", gap: 12, alignItems: "center", marginTop: 8 }}
        >
          <span style={{ flex: 1 }}>Archived: not in the list of current clients. Nothing was deleted.</span>
          <Button onPress={() => archive(false)}>Bring back</Button>
        </p>
      )}
      <Tabs aria-label="Client" style={{ marginTop: 8, marginLeft: -12 }}>
        <Link to={`/clients/${id}`} aria-current={tab ? undefined : "page"}>
          Overview
        </Link>
        <Link to={`/clients/${id}/progress`} aria-current={tab === "progress" ? "page" : undefined}>
          Progress
        </Link>
      </Tabs>
    </Card>
  );
  if (tab === "progress")
    return (
      <div style={{ padding: "18px 24px 60px", display: "grid", gap: 16 }}>
        {head}
        <Progress history={history} visits={visits} zone={me.time_zone} />
      </div>
    );
  const views: View[] =
    last_points.length > 0 && last_points.every((p) => p.view.startsWith("sole"))
      ? ["sole-left", "sole-right"]
      : ["front", "back"];
  const soles = last_points.filter((p) => p.view.startsWith("sole"));
  return (
    <Room>
      <Card className="bodies">
        {views.map((v) => (
          <Figure key={v} view={v} marks={last_points.filter((p) => p.view === v).map((p) => toMark(p))} />
        ))}
      </Card>
      <div className="side">
        {head}
        {error && <Trouble error={error} />}
        {editing && !c.archived && (
          <Button style={{ justifySelf: "start" }} onPress={() => archive(true)}>
            Archive this client
          </Button>
        )}
        {editing && (
          <Card>
            <ClientForm
              key={c.revision}
              client={c}
              onSaved={() => {
                setEditing(false);
                void queries.invalidateQueries({ queryKey: ["course", id] });
              }}
            />
          </Card>
        )}
        {c.cautions?.map((x) => (
          <div key={x} className="caution" role="note">
            {x}
          </div>
        ))}
        <Card>
          {(c.phone || c.email || c.emergency_contact || c.guardian) && (
            <p className="quiet" style={{ marginBottom: 8 }}>
              {[
                c.phone,
                c.email,
                c.emergency_contact && `emergency: ${c.emergency_contact}`,
                c.guardian && `guardian: ${c.guardian}`,
              ]
                .filter(Boolean)
                .join(" · ")}
            </p>
          )}
          <h2>In their words</h2>
          <p style={{ marginTop: 6, fontFamily: "var(--serif)", fontSize: 17 }}>
            {c.complaint ? `“${c.complaint}”` : "Nothing noted yet."}
          </p>
          {soles.length > 0 && (
            <p className="quiet" style={{ marginTop: 8 }}>
              {soles.length} point{soles.length > 1 ? "s" : ""} on the soles, not shown here.
            </p>
          )}
        </Card>
        <Card>
          <h2 style={{ marginBottom: 8 }}>Points followed</h2>
          {history.points.length === 0 && (
            <p className="quiet">
              No point charted yet. The first visit begins with the interview and measuring.
            </p>
          )}
          <ul className="visits">
            {history.points.map((p) => {
              const l = p.visits.at(-1);
              return (
                <li key={p.identity} style={{ gridTemplateColumns: "minmax(0,1fr) 120px 190px" }}>
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
                  <span
                    className={p.number?.direction === "better" ? "" : "quiet"}
                    style={{
                      color:
                        p.number?.direction === "better"
                          ? "var(--good)"
                          : p.number?.direction === "worse"
                            ? "var(--stop)"
                            : undefined,
                    }}
                  >
                    {p.number ? p.number.text : "first time"}
                    {p.number?.signal === "plateau" ? " · plateau" : ""}
                  </span>
                </li>
              );
            })}
          </ul>
        </Card>
        {q.data.consents.length > 0 && (
          <Card data-consents>
            <h2 style={{ marginBottom: 8 }}>Consents</h2>
            <ul className="visits">
              {byDate(q.data.consents)
                .slice(0, allConsents ? undefined : 3)
                .map(([date, list]) => (
                  <li key={date} style={{ gridTemplateColumns: "74px minmax(0, 1fr)" }}>
                    <span className="num">{day(`${date}T12:00:00Z`, "UTC")}</span>
                    <span className="quiet">
                      {list.map((x) => `${areaName(x.area)}: ${consentWords(x)}`).join(" · ")}
                    </span>
                  </li>
                ))}
            </ul>
            {byDate(q.data.consents).length > 3 && (
              <Button style={{ marginTop: 8 }} onPress={() => setAllConsents(!allConsents)}>
                {allConsents ? "The latest only" : "All of them"}
              </Button>
            )}
          </Card>
        )}
        <Card>
          <h2 style={{ marginBottom: 8 }}>Visits</h2>
          <ul className="visits">
            {[...visits].reverse().map((v) => (
              <li key={v.id}>
                <span className="num">{day(v.starts_at, me.time_zone)}</span>
                <span className="quiet">
                  {v.reason} · {v.therapist}
                </span>
                <Link to={`/visits/${v.id}`}>
                  {v.closed_at ? "Look back" : v.opened_at ? "Open" : "Booked"}
                </Link>
              </li>
            ))}
          </ul>
        </Card>
      </div>
    </Room>
  );
}
