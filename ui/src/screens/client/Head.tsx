// The head of a client's page: who, and the way into a visit.
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button, Card } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { lengthWords, useUnitPreferences } from "../../parts/unitPreferences";
import { dateFormat } from "../../parts/dates";

const Tabs = styled.nav`
  margin-left: calc(-1 * var(--s3));
  display: flex;
  gap: 4px;
  a {
    display: flex;
    align-items: center;
    min-height: 44px;
    text-decoration: none;
    padding: 0 14px;
    border-radius: var(--r1);
    color: var(--ink-soft);
    font-weight: 560;
  }
  a[aria-current] {
    background: var(--accent-soft);
    color: var(--accent);
  }
`;

/** A long name has a line of its own where the buttons leave it none. */
const Who = styled(Fill)`
  min-width: min(260px, 100%);
`;

interface Props {
  c: Schemas["Client"];
  visits: Schemas["Visit"][];
  tab?: string;
  editing: boolean;
  onEdit: () => void;
  onBegin: () => void;
  onBringBack: () => void;
  /** Who is licensed says that a changed birth date is right. */
  licensed: boolean;
  onConfirmBorn: () => void;
}

const dated = (iso: string) =>
  dateFormat("en-GB", { dateStyle: "long", timeZone: "UTC" }).format(new Date(iso));

/** A visit that is near enough to be meant. */
const nearMS = 12 * 3600_000;

export function Head({
  c,
  visits,
  tab,
  editing,
  onEdit,
  onBegin,
  onBringBack,
  licensed,
  onConfirmBorn,
}: Props) {
  const go = useNavigate();
  const booked = visits.find((v) => !v.closed_at && Math.abs(Date.parse(v.starts_at) - Date.now()) < nearMS);
  const written = useUnitPreferences();
  const facts = [
    c.age !== undefined && `${c.age} years`,
    c.height_cm && lengthWords(c.height_cm, written),
    c.work,
  ];
  return (
    <Card>
      <Row $gap={3} $align="start" $wrap>
        <Who>
          <h1>
            {c.given_name} {c.family_name}
          </h1>
          <p className="quiet">{facts.filter(Boolean).join(" · ")}</p>
        </Who>
        <Button onPress={onEdit}>{editing ? "Close" : "Edit"}</Button>
        {booked ? (
          <Button $kind="main" onPress={() => go(`/visits/${booked.id}`)}>
            {booked.opened_at ? "Go on with the visit" : "Open today's visit"}
          </Button>
        ) : (
          <Button $kind="main" onPress={onBegin}>
            Begin a visit
          </Button>
        )}
      </Row>
      {c.archived && (
        <Row role="status" className="caution" $gap={3}>
          <Fill>Archived: not in the list of current clients. Nothing was deleted.</Fill>
          <Button onPress={onBringBack}>Bring back</Button>
        </Row>
      )}
      {c.born_was && (
        <Row role="status" className="caution" $gap={3}>
          <Fill>
            The birth date was changed from {dated(c.born_was)} to {c.born_on ? dated(c.born_on) : "none"}.
            Until a licensed person confirms it, the more cautious age counts.
          </Fill>
          {licensed && <Button onPress={onConfirmBorn}>It is right</Button>}
        </Row>
      )}
      <Tabs aria-label="Client">
        <Link to={`/clients/${c.id}`} aria-current={tab ? undefined : "page"}>
          Overview
        </Link>
        <Link to={`/clients/${c.id}/progress`} aria-current={tab === "progress" ? "page" : undefined}>
          Progress
        </Link>
      </Tabs>
    </Card>
  );
}
