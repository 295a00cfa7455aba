// The days beside each other, the hours down; touched where nothing is, an
// appointment is begun there.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { hourOf, type Placed, placed } from "./place";
import { dateFormat } from "../../parts/dates";

const perHour = 63;
const rounding = 15;

const Frame = styled.div<{ $days: number; $hours: number }>`
  display: grid;
  grid-template-columns: 62px repeat(${(p) => p.$days}, minmax(0, 1fr));
  min-width: ${(p) => (p.$days > 1 ? "640px" : "0")};
  .head {
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--paper);
    padding: 6px 8px;
    font-weight: 560;
    border-bottom: 1px solid var(--line);
  }
  .head[data-today="true"] {
    color: var(--accent);
  }
  .head small {
    display: block;
    font-weight: 400;
    color: var(--ink-soft);
  }
  .hours span {
    display: block;
    height: ${perHour}px;
    font-size: var(--t1);
    color: var(--ink-soft);
    text-align: right;
    padding-right: 8px;
    transform: translateY(-8px);
    font-variant-numeric: tabular-nums;
  }
  .hours span:first-child {
    visibility: hidden;
  }
  .day {
    position: relative;
    height: ${(p) => p.$hours * perHour}px;
    border-left: 1px solid var(--line-soft);
    background: repeating-linear-gradient(var(--line-soft) 0 1px, transparent 1px ${perHour}px);
    cursor: copy;
  }
`;

/** So many beside each other on a telephone leave no room for margins. */
const narrow = 8;

const Block = styled.button<{ $top: number; $high: number; $lane: number; $lanes: number }>`
  position: absolute;
  top: ${(p) => p.$top}px;
  height: ${(p) => Math.max(24, p.$high) - 3}px;
  left: calc(${(p) => (100 * p.$lane) / p.$lanes}% + 3px);
  width: calc(${(p) => 100 / p.$lanes}% - 6px);
  overflow: hidden;
  text-align: left;
  padding: 3px ${(p) => (p.$lanes > narrow ? 0 : 7)}px;
  border: 1px solid var(--accent);
  border-left-width: ${(p) => (p.$lanes > narrow ? 1 : 4)}px;
  border-radius: 8px;
  background: var(--accent-soft);
  color: var(--ink);
  font-size: var(--t1);
  line-height: 1.25;
  cursor: pointer;
  b {
    display: block;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  &[data-whose="other"] {
    border-color: var(--other);
    background: var(--card);
  }
  &[data-status="cancelled"],
  &[data-status="no-show"] {
    border-style: dashed;
    border-color: var(--line);
    background: var(--paper);
    color: var(--ink-soft);
    text-decoration: line-through;
  }
  &[aria-pressed="true"] {
    box-shadow: 0 0 0 3px var(--focus);
  }
`;

interface Props {
  diary: Schemas["Diary"];
  me: Schemas["Me"];
  today: string;
  selected?: string;
  shown: (v: Schemas["Visit"]) => boolean;
  onSelect: (v: Schemas["Visit"]) => void;
  onFree: (date: string, minute: number) => void;
}

export function Grid({ diary, me, today, selected, shown, onSelect, onFree }: Props) {
  const days = diary.days.map((d) => ({
    ...d,
    list: placed(diary.visits.filter(shown), d.date, me.time_zone),
  }));
  const all = days.flatMap((d) => d.list);
  const first = Math.min(7, ...all.map((p) => Math.floor(p.minute / 60)));
  const last = Math.max(19, ...all.map((p) => Math.ceil((p.minute + (p.visit.minutes ?? 60)) / 60)));
  const hours = Array.from({ length: last - first }, (_, i) => first + i);
  return (
    <Frame $days={days.length} $hours={hours.length} data-grid>
      <div className="head" />
      {days.map((d) => (
        <div key={d.date} className="head" data-today={d.date === today}>
          {headOf(d.date)}
          {d.hours !== 24 && <small>{d.hours < 24 ? "clocks go forward" : "clocks go back"}</small>}
        </div>
      ))}
      <div className="hours" aria-hidden>
        {hours.map((h) => (
          <span key={h}>{hourOf(h * 60, me.clock_hours)}</span>
        ))}
      </div>
      {days.map((d) => (
        // biome-ignore lint: the form beside it does the same by keyboard
        <div
          key={d.date}
          className="day"
          data-date={d.date}
          onClick={(e) => {
            if (e.target !== e.currentTarget) return;
            const y = e.clientY - e.currentTarget.getBoundingClientRect().top;
            onFree(d.date, first * 60 + Math.floor(((y / perHour) * 60) / rounding) * rounding);
          }}
        >
          {d.list.map((p) => (
            <One
              key={p.visit.id}
              p={p}
              from={first}
              me={me}
              selected={p.visit.id === selected}
              onSelect={() => onSelect(p.visit)}
            />
          ))}
        </div>
      ))}
    </Frame>
  );
}

const headOf = (date: string) =>
  dateFormat("en-GB", {
    weekday: "short",
    day: "numeric",
    month: "short",
    timeZone: "UTC",
  }).format(new Date(`${date}T12:00:00Z`));

interface OneProps {
  p: Placed;
  from: number;
  me: Schemas["Me"];
  selected: boolean;
  onSelect: () => void;
}

function One({ p, from, me, selected, onSelect }: OneProps) {
  const { visit: v, minute, lane, lanes } = p;
  return (
    <Block
      type="button"
      $top={((minute - from * 60) / 60) * perHour}
      $high={((v.minutes ?? 60) / 60) * perHour}
      $lane={lane}
      $lanes={lanes}
      data-visit={v.id}
      data-whose={v.therapist_id === me.id ? "own" : "other"}
      data-status={v.status}
      aria-pressed={selected}
      onClick={onSelect}
    >
      <b>{v.name}</b>
      {hourOf(minute, me.clock_hours)}
      {v.room && `, ${v.room}`}
      {v.status && v.status !== "booked" && `, ${v.status}`}
    </Block>
  );
}
