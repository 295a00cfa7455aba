// Every course as a row over one axis of time.
import { Fragment, memo, useContext, useMemo, useRef } from "react";
import { styled } from "styled-components";
import { Button } from "react-aria-components";
import type { Schemas } from "../../api/client";
import { LookedAt, margins, type Reading, type TimeAxis, TimeRow } from "../../charts/TimeRow";
import { useWidth } from "../../charts/useWidth";
import { bare } from "../../parts/Button";
import { along, type Moment, shortDate, upTo } from "./time";
import { RangeRow } from "./RangeRow";
import { Changed, Visited } from "./RowWords";
import { ScoreRow } from "./ScoreRow";

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 210px minmax(0, 1fr);
    gap: var(--s2) var(--s3);
    align-items: center;
    padding: var(--s2);
    margin: 0 calc(-1 * var(--s2));
    border-top: 1px solid var(--line-soft);
  }
  li[data-selected="true"] {
    background: var(--accent-soft);
    border-radius: var(--r1);
  }
  .what {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .what button {
    ${bare}
    font-weight: 620;
    color: var(--ink);
    min-height: var(--touch);
  }
  .change {
    font-size: var(--t1);
    color: var(--ink-soft);
  }
  .change[data-d="better"] {
    color: var(--good);
  }
  .change[data-d="worse"] {
    color: var(--stop);
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
const Axis = styled.div`
  position: relative;
  height: 20px;
  margin-left: 222px;
  font-size: var(--t1);
  color: var(--ink-soft);
  span:last-child {
    position: absolute;
    right: ${margins.right}px;
  }
  span:first-child {
    position: absolute;
    left: ${margins.left}px;
  }
  @media (max-width: 760px) {
    margin-left: 0;
  }
`;

interface Props {
  history: Schemas["History"];
  moments: Moment[];
  selected?: string;
  onSelect: (id: string) => void;
}

/** Rows are drawn anew for another choice, not for another date. */
export const Rows = memo(function Rows({ history, moments, selected, onSelect }: Props) {
  const x = useMemo(() => along(moments), [moments]);
  const treated = useMemo(() => history.treated.map((t) => t.date), [history]);
  const axis = useRef<HTMLDivElement>(null);
  const width = useWidth(axis);
  return (
    <div>
      <Axis aria-hidden ref={axis}>
        <span>{shortDate(moments[0]?.date ?? "2000-01-01")}</span>
        <span>{shortDate(moments.at(-1)?.date ?? "2000-01-01")}</span>
      </Axis>
      {width && (
        <List aria-label="Courses">
          {history.points.map((p) => (
            <Fragment key={p.identity}>
              <PointRow
                p={p}
                {...{ x, width }}
                selected={p.identity === selected}
                onSelect={() => onSelect(p.identity)}
              />
              <ThresholdRow p={p} {...{ x, width }} />
            </Fragment>
          ))}
          {history.scores.map((s) => (
            <ScoreRow key={s.measure + s.name} s={s} {...{ x, width, treated }} />
          ))}
          {[...new Set(history.ranges.map((r) => r.movement))].map((m) => (
            <RangeRow
              key={m}
              movement={m}
              ranges={history.ranges.filter((r) => r.movement === m)}
              {...{ x, width, treated }}
            />
          ))}
        </List>
      )}
    </div>
  );
});

interface PointProps extends TimeAxis {
  p: Schemas["PointHistory"];
  selected: boolean;
  onSelect: () => void;
}

function PointRow({ p, selected, onSelect, ...shared }: PointProps) {
  const name = `${p.name}, ${p.side}`;
  return (
    <li data-point={p.muscle} data-selected={selected}>
      <div className="what">
        <Button onPress={onSelect} aria-pressed={selected}>
          {name}
        </Button>
        <Changed c={p.number} what="Number" />
        <VisitedThen visits={p.visits} />
      </div>
      <TimeRow label={name} readings={p.visits} {...shared} min={0} max={10} unit="" treated={treatedAt(p)} />
    </li>
  );
}

function VisitedThen({ visits }: { visits: Schemas["PointVisit"][] }) {
  return <Visited v={upTo(visits, useContext(LookedAt))} />;
}

/** Pressure pain threshold of a point that was measured more than once. */
function ThresholdRow({ p, ...shared }: TimeAxis & { p: Schemas["PointHistory"] }) {
  if (!p.ppt) return null;
  const name = `${p.name}, ${p.side}: pressure pain threshold`;
  const readings: Reading[] = p.visits.map((v) => ({ date: v.date, before: v.ppt_kpa }));
  const highest = Math.max(...p.visits.map((v) => v.ppt_kpa ?? 0));
  return (
    <li data-threshold={p.muscle}>
      <div className="what">
        {name}
        <Changed c={p.ppt} what="Threshold" signals={{}} />
      </div>
      <TimeRow
        label={name}
        readings={readings}
        {...shared}
        min={0}
        max={Math.ceil(highest / 100) * 100}
        unit=" kPa"
        treated={treatedAt(p)}
        color="var(--other)"
      />
    </li>
  );
}

const treatedAt = (p: Schemas["PointHistory"]) => p.visits.filter((v) => v.holds > 0).map((v) => v.date);
