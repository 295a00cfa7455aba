// The palpation guide in table mode: one step at a time, large, advanced by
// pedal, Space or arrow keys, with its construction drawn on the body.
import { useEffect, useMemo, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { BodySvg, scaleOf, useFigure, type View, viewName } from "../../body/BodySvg";
import type { Core } from "../../core/core";
import { useCore } from "../../core/useCore";
import { Trouble, Waiting } from "../../parts/controls";
import { one, plain, sentence } from "../../parts/words";
import { motion } from "./Facts";

const Room = styled.main`
  height: 100%;
  background: var(--paper);
  color: var(--ink);
  display: grid;
  grid-template-columns: minmax(0, 1fr) 468px;
  grid-template-rows: 48px minmax(0, 1fr) 88px;
  gap: 14px 26px;
  padding: 14px 26px 18px;
  min-height: 640px;
  user-select: none;
  .head {
    grid-column: 1 / -1;
    display: flex;
    gap: 18px;
    align-items: center;
    min-width: 0;
  }
  .head h1 {
    font-size: 26px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .head span {
    color: var(--ink-soft);
    font-size: 19px;
  }
  .say {
    min-height: 0;
    overflow: auto;
    display: grid;
    align-content: start;
    gap: 14px;
  }
  .step {
    font-family: var(--serif);
    font-size: clamp(34px, 3.9vw, 58px);
    line-height: 1.12;
    font-weight: 560;
    text-wrap: balance;
    min-height: 3.4em;
  }
  .kind {
    font-size: 22px;
    color: var(--accent);
    font-weight: 600;
  }
  .more {
    font-size: 22px;
    line-height: 1.35;
    color: var(--ink-soft);
  }
  .more b {
    color: var(--ink);
  }
  .keep {
    background: var(--warn-soft);
    color: var(--warn);
    border-radius: 14px;
    padding: 12px 16px;
    font-size: 21px;
    line-height: 1.3;
  }
  .body {
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: 18px;
    padding: 8px;
    min-height: 0;
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    justify-items: center;
  }
  .body svg {
    height: 100%;
    max-width: 100%;
  }
  figcaption {
    font-size: 15px;
    color: var(--ink-soft);
  }
  .keys {
    grid-column: 1 / -1;
    display: grid;
    grid-template-columns: 1fr 2.4fr repeat(2, 1fr);
    gap: 10px;
  }
  .dots {
    display: flex;
    gap: 7px;
    flex: 1;
  }
  .dots i {
    width: 26px;
    height: 6px;
    border-radius: 3px;
    background: var(--line);
  }
  .dots i[data-on="true"] {
    background: var(--accent);
  }
`;
const Key = styled.button<{ $go?: boolean }>`
  border: 1px solid var(--line);
  border-radius: 16px;
  cursor: pointer;
  font-size: 22px;
  font-weight: 620;
  min-height: 72px;
  background: ${(p) => (p.$go ? "var(--accent)" : "var(--card)")};
  color: ${(p) => (p.$go ? "var(--accent-ink)" : "var(--ink)")};
  kbd {
    display: block;
    font: 500 14px var(--text);
    opacity: 0.9;
    margin-top: 2px;
  }
  &:disabled {
    opacity: 0.35;
    cursor: default;
  }
`;

export default function Guide({ me }: { me: Schemas["Me"] }) {
  const { muscle = "", side = "left" } = useParams();
  const { core, error, retry } = useCore();
  useEffect(() => {
    document.documentElement.dataset.mode = "table";
    return () => {
      delete document.documentElement.dataset.mode;
    };
  }, []);
  if (error) return <Trouble error={error} onRetry={retry} />;
  if (!core) return <Waiting>Opening the guide…</Waiting>;
  if (!core.atlas({}).some((m) => m.id === muscle) || !["left", "right"].includes(side))
    return <Trouble error={new Error("The atlas has no such muscle or side.")} />;
  return <Steps core={core} muscle={muscle} side={side} finger={me.finger_cm} />;
}

const kindName: Record<string, string> = {
  text: "Prepare",
  landmark: "Landmark",
  site: "The place",
  strum: "Across the fibres",
  trace: "Along the fibres",
  confirm: "Confirm",
};

function Steps({
  core,
  muscle,
  side,
  finger,
}: {
  core: Core;
  muscle: string;
  side: string;
  finger?: number;
}) {
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const height = Number(params.get("height")) || 170;
  const whole = useMemo(
    () => core.palpate(muscle, side, height, undefined, finger),
    [core, muscle, side, height, finger],
  );
  const site = whole.sites.find((s) => s.site === params.get("site"))?.site ?? whole.sites[0]?.site;
  const g = useMemo(
    () => core.palpate(muscle, side, height, site, finger),
    [core, muscle, side, height, site, finger],
  );
  const steps = g.draw;
  const [at, setAt] = useState(0);
  const step = steps[Math.min(at, steps.length - 1)] as Schemas["DrawStep"];
  const next = () => setAt((n) => Math.min(n + 1, steps.length - 1));
  const back = () => setAt((n) => Math.max(0, n - 1));
  const others = whole.sites.length > 1;
  const nextSite = () => {
    const i = whole.sites.findIndex((s) => s.site === site);
    const n = whole.sites[(i + 1) % whole.sites.length];
    setParams({ ...Object.fromEntries(params), site: n?.site ?? "" }, { replace: true });
    setAt(0);
  };
  const leave = () => (history.length > 1 ? go(-1) : go(`/atlas/${muscle}?side=${side}`));
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const act: Record<string, () => void> = {
        " ": next,
        Enter: next,
        ArrowRight: next,
        PageDown: next,
        ArrowLeft: back,
        PageUp: back,
        Backspace: back,
        s: nextSite,
        Escape: leave,
      };
      const f = act[e.key];
      if (f) {
        e.preventDefault();
        f();
      }
    };
    addEventListener("keydown", keys);
    return () => removeEventListener("keydown", keys);
  });
  const view = ((step.view || g.sites[0]?.view) ?? "back") as View;
  const place = g.sites[0];
  const late =
    step.kind === "site" || step.kind === "strum" || step.kind === "trace" || step.kind === "confirm";
  return (
    <Room data-step={at}>
      <div className="head">
        <h1>
          {g.name}, {side}
        </h1>
        <span>
          {place?.name}
          {place && place.reach !== "easy" ? ` · reach: ${place.reach}` : ""}
        </span>
        <span className="dots" aria-label={`Step ${at + 1} of ${steps.length}`} role="img">
          {steps.map((s, i) => (
            <i key={s.kind + s.text} data-on={i <= at} />
          ))}
        </span>
      </div>
      <div className="say">
        <p className="kind">
          {kindName[step.kind]}
          {step.landmark ? `: ${plain(step.landmark)}` : ""} · {at + 1} of {steps.length}
        </p>
        <p className="step" aria-live="polite">
          {step.text}
        </p>
        {at === 0 && (
          <p className="more">
            <b>Lies</b> {g.positions.map(plain).join(", ")}. <b>Drape.</b> {g.draping}{" "}
            {g.ease_first.length > 0 && (
              <>
                <b>Ease first</b> {g.ease_first.map(plain).join(", ")}.
              </>
            )}
          </p>
        )}
        {step.kind === "site" &&
          g.near.slice(0, 3).map((n) => (
            <p key={n.structure} className="keep">
              <b>
                {n.name}, {one(n.distance_cm)} cm, {one(n.finger_widths)} fingers.
              </b>{" "}
              {n.text}
            </p>
          ))}
        {step.kind === "strum" && (
          <p className="more">
            <b>Contact</b> {g.contacts.map(plain).join(", ")}. <b>Slack</b> {g.slack.map(motion).join("; ")}.{" "}
            <b>Tension</b> {g.tension.map(motion).join("; ")}.
          </p>
        )}
        {step.kind === "trace" &&
          g.mistaken_for.slice(0, 3).map((n) => (
            <p key={n.muscle} className="more">
              <b>{sentence(plain(n.muscle))}.</b> {n.tell}
            </p>
          ))}
        {step.kind === "confirm" && (
          <>
            <p className="more">
              <b>Usually sends pain to</b>{" "}
              {g.referral.essential.map(plain).join(", ") || "nowhere: pressing technique only"}. Ask openly;
              a guide, never proof.
            </p>
            {g.cautions.map((c) => (
              <p key={c} className="keep">
                {c}
              </p>
            ))}
          </>
        )}
      </div>
      <figure className="body" style={{ margin: 0 }}>
        <Construction view={view} core={core} g={g} steps={steps.slice(0, at + 1)} late={late} side={side} />
        <figcaption>{viewName[view]}</figcaption>
      </figure>
      <div className="keys">
        <Key type="button" onClick={back} disabled={at === 0}>
          Back<kbd>←</kbd>
        </Key>
        <Key type="button" $go onClick={at === steps.length - 1 ? leave : next}>
          {at === steps.length - 1 ? "Done" : "Next"}
          <kbd>space · pedal</kbd>
        </Key>
        <Key type="button" onClick={nextSite} disabled={!others}>
          Next site<kbd>S</kbd>
        </Key>
        <Key type="button" onClick={leave}>
          Leave<kbd>esc</kbd>
        </Key>
      </div>
    </Room>
  );
}

/** The body around what is found so far: landmarks in order, joined; then the
 * place with its arrows and what to keep off. */
function Construction({
  view,
  core,
  g,
  steps,
  late,
  side,
}: {
  view: View;
  core: Core;
  g: Schemas["Guide"];
  steps: Schemas["DrawStep"][];
  late: boolean;
  side: string;
}) {
  const { data } = useFigure(view);
  const drawn = useMemo(() => {
    const d = core.layers({
      view,
      layers: ["bones", "structures", "muscles"],
      only: [g.muscle],
      side,
    } as Schemas["Wanted"]);
    const near = new Set(g.near.map((n) => n.structure));
    return {
      ...d,
      strands: late ? d.strands : [],
      structures: late ? d.structures.filter((s) => near.has(s.structure)) : [],
    };
  }, [core, view, g, late, side]);
  // The picture closes in on everything that the guide draws in this view.
  const part = useMemo<[number, number, number, number] | undefined>(() => {
    const w = data?.width ?? 480;
    const pts = [...g.landmarks, ...g.sites].filter((p) => p.view === view);
    if (!pts.length) return undefined;
    const x0 = Math.min(...pts.map((p) => p.x)),
      x1 = Math.max(...pts.map((p) => p.x));
    const y0 = Math.min(...pts.map((p) => p.y)),
      y1 = Math.max(...pts.map((p) => p.y));
    const least = scaleOf(view) > 1 ? 620 : 250;
    const tall = Math.min(1016, Math.max(least, (y1 - y0) * 1.7, (x1 - x0) * 1.9));
    const wide = Math.min(w + 12, tall * 0.72);
    return [
      Math.max(-6, Math.min(w + 6 - wide, (x0 + x1) / 2 - wide / 2)),
      Math.max(-8, Math.min(1008 - tall, (y0 + y1) / 2 - tall / 2)),
      wide,
      tall,
    ];
  }, [data, g, view]);
  const k = (part?.[3] ?? 1000) / 700;
  const here = steps.filter((s) => s.view === view);
  const now = steps.at(-1);
  // Names stand away from the place, so that nothing covers it.
  const leftOf = (s: Schemas["DrawStep"]) => g.sites[0]?.view === view && s.at.x < g.sites[0].x - 2;
  const arrow = (deg: number, len: number, x: number, y: number, key: string, bright: boolean) => {
    const a = (deg * Math.PI) / 180;
    const dx = Math.cos(a) * len,
      dy = Math.sin(a) * len;
    const head = (ex: number, ey: number, s: number) => {
      const h = 9 * k,
        b = a + (s < 0 ? Math.PI : 0);
      return `M${ex - h * Math.cos(b - 0.5)},${ey - h * Math.sin(b - 0.5)}L${ex},${ey}L${ex - h * Math.cos(b + 0.5)},${ey - h * Math.sin(b + 0.5)}`;
    };
    return (
      <path
        key={key}
        d={`M${x - dx},${y - dy}L${x + dx},${y + dy}${head(x + dx, y + dy, 1)}${head(x - dx, y - dy, -1)}`}
        fill="none"
        stroke={bright ? "var(--ink)" : "var(--ink-soft)"}
        strokeWidth={(bright ? 4.4 : 2.4) * k}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    );
  };
  return (
    <BodySvg
      view={view}
      drawn={drawn}
      window={part}
      role="img"
      aria-label={`${viewName[view]}: ${here.map((s) => s.landmark ?? s.kind).join(", ")}`}
    >
      <g fill="none">
        {here.map(
          (s, i) =>
            s.from && (
              <line
                key={`l${i}`}
                x1={s.from.x}
                y1={s.from.y}
                x2={s.at.x}
                y2={s.at.y}
                stroke="var(--accent)"
                strokeWidth={1.8 * k}
                strokeDasharray={`${6 * k} ${4 * k}`}
              />
            ),
        )}
        {here
          .filter((s) => s.kind === "landmark")
          .map((s, i) => (
            <g key={`m${i}`}>
              <circle
                cx={s.at.x}
                cy={s.at.y}
                r={(s === now ? 11 : 7) * k}
                fill={s === now ? "var(--accent)" : "var(--card)"}
                stroke="var(--accent)"
                strokeWidth={2.4 * k}
              />
              <text
                x={s.at.x + (leftOf(s) ? -15 : 15) * k}
                y={s.at.y + 5 * k}
                textAnchor={leftOf(s) ? "end" : "start"}
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
          ))}
        {late &&
          g.sites
            .filter((s) => s.view === view)
            .map((s) => (
              <g key={s.site}>
                {["strum", "confirm"].includes(now?.kind ?? "") &&
                  arrow(g.strum_deg, 34 * k, s.x, s.y, "strum", now?.kind === "strum")}
                {["trace", "confirm"].includes(now?.kind ?? "") &&
                  arrow(g.trace_deg, 60 * k, s.x, s.y, "trace", now?.kind === "trace")}
                <circle
                  cx={s.x}
                  cy={s.y}
                  r={10 * k}
                  fill="var(--point)"
                  stroke="var(--card)"
                  strokeWidth={2.5 * k}
                />
              </g>
            ))}
      </g>
    </BodySvg>
  );
}
