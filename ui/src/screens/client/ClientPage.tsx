// A client: who they are, the points on the body, what was agreed to, visits.
import { useCallback, useDeferredValue, useState } from "react";
import { useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useCourse } from "../../api/queries";
import { BodyViews } from "../../body/BodyViews";
import { Figure } from "../../body/Figure";
import { useMainViewsOfServer } from "../../body/useMainViews";
import { toMark } from "../../body/marks";
import type { View } from "../../body/views";
import { Button, Card, Failed, ErrorPanel, Waiting } from "../../parts/controls";
import { Row, Stack } from "../../parts/layout";
import { ClientForm } from "../clients/ClientForm";
import { lazily } from "../lazily";
import { load } from "../load";
import { Cards } from "./Cards";
import { Head } from "./Head";
import { Record } from "./Record";
import { useClient } from "./useClient";
import { phone, upright } from "../../theme";
import { may } from "../../rights";

const Progress = lazily(load.Progress);

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
    margin: 0;
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
    border-radius: var(--r1);
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
  .points li {
    grid-template-columns: minmax(0, 1fr) 120px 190px;
  }
  .consents li {
    grid-template-columns: 74px minmax(0, 1fr);
  }
  .visits li:first-child {
    border-top: 0;
  }
  ${upright} {
    height: auto;
    grid-template-columns: minmax(0, 1fr);
    .bodies {
      height: 46vh;
    }
    /* Who it is comes first, then the body, then the rest. */
    .side {
      display: contents;
      overflow: visible;
    }
    .side > * {
      order: 1;
    }
    .side > :first-child {
      order: -1;
    }
  }
  ${phone} {
    padding: 12px;
    .points li {
      grid-template-columns: minmax(0, 1fr);
      gap: 2px;
    }
  }
`;
const Whole = styled(Stack)`
  padding: var(--s4) var(--s5) 60px;
`;

export default function ClientPage({ me }: { me: Schemas["Me"] }) {
  const { id = "", tab } = useParams();
  const [all, setAll] = useState(false);
  const [editing, setEditing] = useState(false);
  const q = useCourse(id, all);
  // Two hundred visits are drawn piece by piece, and between them the page answers. What is drawn
  // may be older than the answer, but is never another client's under this address.
  const course = useDeferredValue(q.data);
  const client = useClient(id);
  const onAll = useCallback(() => setAll(true), []);
  if (q.error) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (course?.client.id !== id) return <Waiting>Opening the record…</Waiting>;
  const { client: c, visits, history, older } = course;
  const head = (
    <Head
      c={c}
      visits={visits}
      tab={tab}
      editing={editing}
      onEdit={() => setEditing(!editing)}
      onBegin={() => client.begin(c)}
      onBringBack={() => client.archive(false)}
      licensed={may(me, "archive-client")}
      onConfirmBorn={() => client.confirmBorn(c)}
    />
  );
  if (tab === "progress")
    return (
      <Whole $gap={4}>
        {head}
        <Progress client={c.id} history={history} visits={c.visits ?? 0} older={older} onAll={onAll} />
      </Whole>
    );
  return (
    <Room>
      <Bodies points={course.last_points} />
      <div className="side">
        {head}
        {client.error && <ErrorPanel error={client.error} />}
        {editing && (
          <Card>
            <ClientForm
              key={c.revision}
              client={c}
              onSaved={() => {
                setEditing(false);
                void client.refresh();
              }}
            />
            {!c.archived && (
              <Row>
                <Button
                  onPress={() => {
                    setEditing(false);
                    void client.archive(true);
                  }}
                >
                  Archive this client
                </Button>
              </Row>
            )}
          </Card>
        )}
        <Cards course={course} zone={me.time_zone} onAll={onAll} />
        {may(me, "client-course") && <Record c={c} me={me} onChanged={() => void client.refresh()} />}
      </div>
    </Room>
  );
}

/** The points of the latest visit. */
function Bodies({ points }: { points: Schemas["FoundPoint"][] }) {
  const main = useMainViewsOfServer({ points: points.map((p) => p.view) });
  const marksOn = (view: View) => points.filter((p) => p.view === view).map((p) => toMark(p));
  return (
    <Card className="bodies">
      <BodyViews main={main} marks={marksOn}>
        {(v) => <Figure key={v} view={v} marks={marksOn(v)} />}
      </BodyViews>
    </Card>
  );
}
