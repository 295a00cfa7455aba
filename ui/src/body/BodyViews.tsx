// The body on a screen: the view that the work wants fills the room, or two where the work
// lies in both; all views stand beside it as small live pictures, and a touch turns to one.
import { Columns2 } from "lucide-react";
import {
  Activity,
  createContext,
  memo,
  type ReactNode,
  startTransition,
  useCallback,
  useMemo,
  useRef,
  useState,
} from "react";
import { ToggleButton } from "react-aria-components";
import { styled } from "styled-components";
import type { Drawing } from "./drawing";
import type { Mark } from "./Mark";
import { PaintedOn } from "./Painted";
import { Outline } from "./Skin";
import type { MainViews } from "./useMainViews";
import { allViews, scaleOf, useFigure, type View, viewName } from "./views";
import { boxOf } from "./zoom";

type Window = [number, number, number, number];

/** What is close up tells which part of its view it shows; nothing when it is the whole. */
export const TellSeen = createContext<((view: View, part: Window | undefined) => void) | undefined>(
  undefined,
);

/** What the views stand in. They are laid out when its size is known, and not before: in a grid that
 * is still measured they would be too low for a moment, the pictures would stand two by two, and
 * every path of every body would be laid out and painted anew at any change of the page. */
const Room = styled.div`
  position: relative;
  min-height: 0;
  height: 100%;
`;

const Views = styled.div`
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  gap: var(--s2);
  container-type: size;
  .strip {
    display: grid;
    grid-template-columns: 56px;
    grid-auto-rows: minmax(44px, 72px);
    gap: var(--s1);
    min-height: 0;
    padding-bottom: var(--s1);
    /* Nine pictures of 44 px need so much; in less they stand two by two. */
    @container (max-height: 432px) {
      grid-template-columns: 48px 48px;
    }
  }
  .strip button {
    min-height: 0;
    padding: 2px;
    border: 1px solid var(--line-soft);
    border-radius: var(--r1);
    background: transparent;
    color: var(--ink-soft);
    cursor: pointer;
    display: grid;
    place-items: center;
    overflow: hidden;
  }
  .strip button[data-selected] {
    border: 2px solid var(--accent);
    background: var(--accent-soft);
  }
  .strip .thumb {
    width: 100%;
    height: 100%;
    min-height: 0;
  }
  @media print {
    grid-template-columns: minmax(0, 1fr);
    .strip {
      display: none;
    }
  }
`;

/** Close up, two parts of the body would run into each other: a line keeps them apart. */
const Shown = styled.div`
  display: grid;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
  grid-template-rows: minmax(0, 1fr);
  gap: var(--s2);
  min-height: 0;
  min-width: 0;
  &[data-two="true"] > * + * {
    border-left: 1px solid var(--line-soft);
  }
  /* Beside each other they would be too narrow for their own keys. */
  @container (max-width: 400px) {
    grid-auto-flow: row;
    grid-auto-rows: minmax(0, 1fr);
    grid-template-rows: none;
    &[data-two="true"] > * + * {
      border-left: 0;
    }
  }
`;

interface Props {
  main: MainViews;
  /** What the small pictures show beside the body itself. */
  marks?: (view: View) => readonly Pick<Mark, "id" | "x" | "y">[];
  drawing?: Drawing;
  children: (view: View) => ReactNode;
}

/** The other view is shown at once; what else on the page follows from it may come a frame later. */
function useShownAtOnce(main: MainViews) {
  const [ahead, setAhead] = useState<{ of: View[]; views: View[] }>();
  const views = ahead?.of === main.views ? ahead.views : main.views;
  const turn = (view: View) => {
    setAhead({ of: main.views, views: [view] });
    // Behind the frame that shows it.
    requestAnimationFrame(() => startTransition(() => main.turn(view)));
  };
  return { views, turn };
}

/** So many views stay drawn, out of sight: a body of two hundred paths takes a frame to draw, and
 * one goes back and forth between a few. */
const most = 4;

/** The views that are shown and those that were last, in their usual order. */
function useKept(views: View[]): View[] {
  const last = useRef<View[]>([]);
  last.current = [...views, ...last.current.filter((v) => !views.includes(v))].slice(0, most);
  return allViews.filter((v) => last.current.includes(v));
}

export function BodyViews({ main, marks, drawing, children }: Props) {
  const { views, turn } = useShownAtOnce(main);
  const [seen, setSeen] = useState<Partial<Record<View, Window>>>({});
  const tell = useCallback(
    (view: View, part: Window | undefined) => setSeen((old) => ({ ...old, [view]: part })),
    [],
  );
  const painted = useMemo(() => new Set([...(drawing?.keys() ?? [])].map((c) => c.split(":")[0])), [drawing]);
  const kept = useKept(views);
  const two = views.length > 1;
  return (
    <Room>
      <Views data-views={views.join(" ")}>
        <div className="strip" role="group" aria-label="View">
          {allViews.map((v) => (
            <ToggleButton
              key={v}
              aria-label={viewName[v]}
              data-turn={v}
              isSelected={views.includes(v)}
              onPress={() => turn(v)}
            >
              <Thumb
                view={v}
                marks={marks?.(v)}
                drawing={painted.has(v) ? drawing : undefined}
                seen={views.includes(v) ? seen[v] : undefined}
              />
            </ToggleButton>
          ))}
          <ToggleButton
            aria-label="Two views beside each other"
            data-turn="two"
            isSelected={two}
            onPress={main.beside}
          >
            <Columns2 size={20} aria-hidden />
          </ToggleButton>
        </div>
        <TellSeen value={tell}>
          <Shown data-two={two}>
            {kept.map((v) => (
              <Activity key={v} mode={views.includes(v) ? "visible" : "hidden"}>
                {children(v)}
              </Activity>
            ))}
          </Shown>
        </TellSeen>
      </Views>
    </Room>
  );
}

interface ThumbProps {
  view: View;
  marks?: readonly Pick<Mark, "id" | "x" | "y">[];
  drawing?: Drawing;
  seen?: Window;
}

/** Dots for marks and a frame for what is close up, in view units. */
const dot = 26;
const frame = 14;

const Thumb = memo(function Thumb({ view, marks = [], drawing, seen }: ThumbProps) {
  const { data: figure } = useFigure(view);
  if (!figure) return <svg className="thumb" viewBox="0 0 480 1000" aria-hidden />;
  const { x, y, width, height } = boxOf(figure.width);
  // A close-up of head or sole has fewer units to the pixel.
  const k = scaleOf(view) > 1 ? 1.6 : 1;
  return (
    <svg className="thumb" viewBox={`${x} ${y} ${width} ${height}`} aria-hidden>
      <Outline figure={figure} />
      {drawing && <PaintedOn view={view} drawing={drawing} />}
      {marks.map((m) => (
        <circle key={m.id} cx={m.x} cy={m.y} r={dot * k} fill="var(--point)" />
      ))}
      {seen && (
        <rect
          x={seen[0]}
          y={seen[1]}
          width={seen[2]}
          height={seen[3]}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={frame}
        />
      )}
    </svg>
  );
});
