// The body as it was found at a date: points by tenderness and number, where they
// were felt, and the first visit as a ghost.
import { Pause, Play } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { BodyViews } from "../../body/BodyViews";
import { Figure } from "../../body/Figure";
import type { Mark } from "../../body/Mark";
import { useMainViewsOfServer } from "../../body/useMainViews";
import type { View } from "../../body/views";
import { type Box, useMarkScale, useScale } from "../../body/zoom";
import { Button, Card, Slide } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { one, sentence } from "../../parts/words";
import { longDate, type Moment, upTo } from "./time";
import { useFelt } from "./useFelt";

const Pane = styled(Card)`
  height: 100%;
  grid-template-rows: minmax(320px, 1fr) auto;
  padding: 12px;
  .ghost {
    fill: none;
    stroke: var(--ink-soft);
    stroke-dasharray: 4 4;
    pointer-events: none;
  }
`;

/** A visit is looked at so long before the next one. */
const stepMS = 900;

interface Props {
  points: Schemas["PointHistory"][];
  moments: Moment[];
  at: number;
  onAt: (i: number) => void;
  selected?: string;
  onSelect: (id: string) => void;
}

export function BodyOverTime({ points, moments, at, onAt, selected, onSelect }: Props) {
  const [playing, setPlaying] = useState(false);
  const last = moments.length - 1;
  useEffect(() => {
    if (!playing) return;
    if (at >= last) return setPlaying(false);
    const timer = setTimeout(() => onAt(at + 1), stepMS);
    return () => clearTimeout(timer);
  }, [playing, at, last, onAt]);
  const date = moments[at]?.date ?? "";
  const main = useMainViewsOfServer({ points: points.map((p) => p.view) });
  return (
    <Pane data-date={date}>
      <BodyViews main={main} marks={(v) => marksAt(points, v, date)}>
        {(v) => (
          <OneView key={v} view={v} points={points} date={date} selected={selected} onSelect={onSelect} />
        )}
      </BodyViews>
      <Row $gap={3}>
        <Button
          aria-label={playing ? "Stop" : "Play the visits one after the other"}
          isDisabled={last < 1}
          onPress={() => {
            if (!playing && at >= last) onAt(0);
            setPlaying(!playing);
          }}
        >
          {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />}
        </Button>
        <Fill>
          <Slide
            label={`${at + 1} of ${moments.length} visits with findings`}
            value={at}
            min={0}
            max={Math.max(1, last)}
            describe={() => longDate(date)}
            onSlide={(i) => {
              setPlaying(false);
              onAt(Math.min(i, last));
            }}
          />
        </Fill>
      </Row>
    </Pane>
  );
}

/** What was found in a view at a date. */
const marksAt = (points: Schemas["PointHistory"][], view: View, date: string) =>
  points.filter((p) => p.view === view).flatMap((p) => markAt(p, date) ?? []);

/** So much of the view is shown round its points, and at least so much in all. */
const margin = 36;
const least = 150;

/** What is to be seen of a view: all the points that there ever were. */
function closeUp(points: Schemas["PointHistory"][]): Box | undefined {
  const at = points.flatMap((p) => p.visits);
  if (at.length === 0) return undefined;
  const [xs, ys] = [at.map((v) => v.x), at.map((v) => v.y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(...xs) - left, Math.max(...ys) - top];
  const [w, h] = [Math.max(least, width + 2 * margin), Math.max(least, height + 2 * margin)];
  return { x: left + width / 2 - w / 2, y: top + height / 2 - h / 2, width: w, height: h };
}

interface ViewProps {
  view: View;
  points: Schemas["PointHistory"][];
  date: string;
  selected?: string;
  onSelect: (id: string) => void;
}

function OneView({ view, points, date, selected, onSelect }: ViewProps) {
  const here = points.filter((p) => p.view === view);
  const marks = marksAt(points, view, date);
  const shown = points.find((p) => p.identity === selected);
  const fit = useMemo(() => closeUp(points.filter((p) => p.view === view)), [points, view]);
  const felt = useMemo(() => (shown ? (upTo(shown.visits, date)?.referral ?? []) : []), [shown, date]);
  return (
    <Figure
      view={view}
      marks={marks}
      fit={fit}
      zones={useFelt(view, felt)}
      selected={selected}
      onSelect={onSelect}
      over={here.map((p) => (
        <Ghost key={p.identity} view={view} first={p.visits[0]} date={date} />
      ))}
    />
  );
}

function markAt(p: Schemas["PointHistory"], date: string): Mark | undefined {
  const v = upTo(p.visits, date);
  if (!v) return undefined;
  const number = v.before ?? v.after;
  return {
    id: p.identity,
    x: v.x,
    y: v.y,
    grade: v.grade ?? 1,
    kind: v.activity === "active" || v.activity === "latent" ? v.activity : "spot",
    label: `${sentence(p.name)}, ${p.side}: ${one(number)} of 10`,
    number: number === undefined ? undefined : Math.round(number),
  };
}

/** How large it was at the first visit: round the mark, in the mark's own scale. */
function Ghost({ first, date, view }: { first?: Schemas["PointVisit"]; date: string; view: View }) {
  const scale = Math.sqrt(useMarkScale(view) * useScale(view));
  if (!first || first.date >= date) return null;
  const r = (8 + (first.grade ?? 1) * 2.4) * scale;
  return (
    <ellipse
      className="ghost"
      cx={first.x}
      cy={first.y}
      rx={r * 1.15}
      ry={r * 1.75}
      strokeWidth={1.5}
      vectorEffect="non-scaling-stroke"
    />
  );
}
