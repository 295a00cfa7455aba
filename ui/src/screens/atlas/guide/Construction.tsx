// The body around what is found so far: landmarks in order, joined; then the
// place with its arrows and what to keep off.
import { useContext, useMemo, useRef } from "react";
import type { Schemas } from "../../../api/client";
import { useFigure, type View, viewName } from "../../../body/views";
import { type Box, Closeness } from "../../../body/zoom";
import { ZoomedBody } from "../../../body/ZoomedBody";
import { useAsk } from "../../../core/useAsk";
import type { Core } from "../../../core/core";
import { plain } from "../../../parts/words";
import { arrow, closeUp } from "./geometry";
import { Touch } from "./Touch";

type Step = Schemas["DrawStep"];

interface Props {
  view: View;
  core: Core;
  g: Schemas["Guide"];
  /** The steps so far. */
  steps: Step[];
  /** Whether the place itself is shown. */
  late: boolean;
  side: Schemas["Side"];
  /** Of the client, cm. */
  height: number;
}

export function Construction(props: Props) {
  const { view, core, g, steps, late, side } = props;
  const { data } = useFigure(view);
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useDrawn(view, core, g, late, side);
  const part = useMemo(() => closeUp(g, view, data?.width ?? 480), [data, g, view]);
  const here = steps.filter((s) => s.view === view);
  return (
    <ZoomedBody
      svg={svg}
      view={view}
      drawn={drawn}
      drags
      fit={part}
      role="img"
      aria-label={`${viewName[view]}: ${here.map((s) => s.landmark ?? s.kind).join(", ")}`}
    >
      <Found {...props} here={here} part={part} share={data?.share ?? 1} />
    </ZoomedBody>
  );
}

interface FoundProps extends Props {
  /** The steps that this view shows. */
  here: Step[];
  part: Box | undefined;
  /** Of the body's height that the view stands for. */
  share: number;
}

/** What is found so far, as large on screen however close the body is. */
function Found({ g, steps, late, height, view, here, part, share }: FoundProps) {
  const k = 1.5 / useContext(Closeness);
  const now = steps.at(-1);
  const site = g.sites.find((s) => s.view === view);
  return (
    <>
      {here.map((s, i) => s.from && <Joined key={`${s.kind}${i}`} from={s.from} to={s.at} k={k} />)}
      {here
        .filter((s) => s.kind === "landmark")
        .map((s) => (
          <Landmark
            key={s.landmark}
            s={s}
            now={s === now}
            // Names stand away from the place, so that nothing covers it.
            toLeft={(!!site && s.at.x < site.x - 2) || (!!part && s.at.x > part.x + part.width * 0.95)}
            k={k}
          />
        ))}
      {late && site && g.contacts[0] && (
        <Touch contact={g.contacts[0]} at={site} along={g.trace_deg} mm={100 / (share * height)} k={k} />
      )}
      {late && site && <Place g={g} site={site} kind={now?.kind} k={k} />}
    </>
  );
}

/** Bones; once the place is shown, the muscle and what to keep off near it. */
function useDrawn(view: View, core: Core, g: Schemas["Guide"], late: boolean, side: Schemas["Side"]) {
  const d = useAsk(core, "layers", {
    view,
    layers: ["bones", "structures", "muscles"],
    only: [g.muscle],
    side,
  });
  return useMemo(() => {
    if (!d) return undefined;
    const near = new Set(g.near.map((n) => n.structure));
    return {
      ...d,
      strands: late ? d.strands : [],
      structures: late ? d.structures.filter((s) => near.has(s.structure)) : [],
    };
  }, [d, g, late]);
}

function Joined({ from, to, k }: { from: Schemas["XY"]; to: Schemas["XY"]; k: number }) {
  return (
    <line
      x1={from.x}
      y1={from.y}
      x2={to.x}
      y2={to.y}
      stroke="var(--accent)"
      strokeWidth={1.8 * k}
      strokeDasharray={`${6 * k} ${4 * k}`}
    />
  );
}

function Landmark({ s, now, toLeft, k }: { s: Step; now: boolean; toLeft: boolean; k: number }) {
  return (
    <g>
      <circle
        cx={s.at.x}
        cy={s.at.y}
        r={(now ? 11 : 7) * k}
        fill={now ? "var(--accent)" : "var(--card)"}
        stroke="var(--accent)"
        strokeWidth={2.4 * k}
      />
      <text
        x={s.at.x + (toLeft ? -15 : 15) * k}
        y={s.at.y + 5 * k}
        textAnchor={toLeft ? "end" : "start"}
        fontSize={19 * k}
        fontWeight={600}
        fill="var(--ink)"
        stroke="var(--card)"
        strokeWidth={5 * k}
        paintOrder="stroke"
      >
        {plain(s.landmark ?? "")}
      </text>
    </g>
  );
}

interface PlaceProps {
  g: Schemas["Guide"];
  site: Schemas["SitePlace"];
  kind?: Step["kind"];
  k: number;
}

/** The place, with the ways across and along the fibres. */
function Place({ g, site, kind, k }: PlaceProps) {
  const both = kind === "confirm";
  const way = (degrees: number, length: number, bright: boolean) => (
    <path
      d={arrow(site, degrees, length * k, 9 * k)}
      fill="none"
      stroke={bright ? "var(--ink)" : "var(--ink-soft)"}
      strokeWidth={(bright ? 4.4 : 2.4) * k}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
  return (
    <g>
      {(both || kind === "strum") && way(g.strum_deg, 34, kind === "strum")}
      {(both || kind === "trace") && way(g.trace_deg, 60, kind === "trace")}
      <circle
        cx={site.x}
        cy={site.y}
        r={10 * k}
        fill="var(--point)"
        stroke="var(--card)"
        strokeWidth={2.5 * k}
      />
    </g>
  );
}
