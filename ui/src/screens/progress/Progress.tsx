// Across visits: what changed since the first, what since the last, where, and by
// what.
import { memo, useCallback, useDeferredValue, useMemo, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { LookedAt } from "../../charts/TimeRow";
import { Card } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Row, Said } from "../../parts/layout";
import { count } from "../../parts/words";
import { type More, Older } from "../client/Older";
import { upright } from "../../theme";
import { BodyOverTime } from "./BodyOverTime";
import { Compare } from "./Compare";
import { Rows } from "./Rows";
import { type Moment, momentsOf } from "./time";
import { Worked } from "./Worked";

const Room = styled.div`
  display: grid;
  grid-template-columns: minmax(360px, 40%) minmax(0, 1fr);
  gap: 18px;
  align-items: start;
  .body {
    position: sticky;
    top: 0;
    height: min(680px, calc(100vh - 262px));
    min-height: 420px;
  }
  &[data-empty="true"] {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    display: grid;
    gap: 16px;
    min-width: 0;
  }
  ${upright} {
    grid-template-columns: minmax(0, 1fr);
    .body {
      position: static;
      height: 52vh;
    }
  }
`;

interface Props {
  client: string;
  history: Schemas["History"];
  /** How many visits there were in all. */
  visits: number;
  older: number;
  onAll: More["onAll"];
}

const none: Moment[] = [];

function Progress({ client, history, visits, older, onAll }: Props) {
  const moments = useMemo(() => momentsOf(history), [history]);
  // Its two lists have every visit: they are made when the rest is on screen.
  const listed = useDeferredValue(moments, none);
  const [chosen, setAt] = useState<number>();
  const [selected, setSelected] = useState<string>();
  const at = Math.min(chosen ?? moments.length - 1, moments.length - 1);
  const { summed } = history;
  const select = useCallback((id: string) => setSelected((before) => (id === before ? undefined : id)), []);
  return (
    <Room data-empty={moments.length === 0}>
      {moments.length > 0 && (
        <div className="body">
          <BodyOverTime
            points={history.points}
            moments={moments}
            at={at}
            onAt={setAt}
            selected={selected}
            onSelect={select}
          />
        </div>
      )}
      <div className="side">
        <Card data-signal={summed.signal}>
          <Said $lead data-summary>
            {summed.text}
          </Said>
          <Row $wrap $gap={3}>
            <Said className="quiet">
              {count(visits, "visit")}. {summed.next}
            </Said>
            <FileLink href={`/api/clients/${client}/print/progress`}>Print it (PDF)</FileLink>
          </Row>
          {older > 0 && <Older older={older} onAll={onAll} />}
        </Card>
        {moments.length > 0 && (
          <Card>
            <Said className="quiet" $small>
              ○ before, ● after, | treated. The dashed line is the visit on the body.
            </Said>
            <LookedAt value={moments[at]?.date ?? ""}>
              <Rows history={history} moments={moments} selected={selected} onSelect={select} />
            </LookedAt>
          </Card>
        )}
        <Worked list={history.worked} lengthening={history.lengthening} />
        {listed.length > 1 && <Compare client={client} moments={listed} />}
      </div>
    </Room>
  );
}

export default memo(Progress);
