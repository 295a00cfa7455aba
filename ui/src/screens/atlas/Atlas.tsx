// The atlas: find a muscle by name, by where it hurts, or see what to keep
// off; the body beside it shows what is meant.
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { pairOf, pairs, type View, viewName } from "../../body/BodySvg";
import { Figure, type Mark } from "../../body/Figure";
import { useLattice } from "../../body/PainBody";
import type { Core } from "../../core/core";
import { useCore } from "../../core/useCore";
import { Card, Choice, Choices, Pick, Text, Trouble, Waiting } from "../../parts/controls";
import { movementName, one, plain, sentence } from "../../parts/words";
import { Facts } from "./Facts";

const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 286px minmax(0, 1fr) 396px;
  gap: 16px;
  padding: 14px 20px 16px;
  min-height: 600px;
  > * {
    min-height: 0;
    min-width: 0;
  }
  .left {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    gap: 10px;
  }
  .list {
    overflow: auto;
    list-style: none;
    margin: 0;
    padding: 2px;
    display: grid;
    gap: 2px;
    align-content: start;
  }
  .list button {
    width: 100%;
    text-align: left;
    border: 0;
    background: none;
    border-radius: 9px;
    padding: 7px 10px;
    cursor: pointer;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 8px;
  }
  .list button:hover {
    background: var(--line-soft);
  }
  .list button[aria-current="true"] {
    background: var(--accent-soft);
    color: var(--accent);
  }
  .list small {
    color: var(--ink-soft);
    font-size: 12.5px;
  }
  .list i {
    grid-column: 1 / -1;
    height: 3px;
    border-radius: 2px;
    background: var(--usual);
    margin-top: 4px;
  }
  .body {
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: 16px;
    padding: 10px 12px 4px;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
  }
  .tools {
    display: flex;
    gap: 10px 14px;
    flex-wrap: wrap;
    align-items: end;
    justify-content: space-between;
    padding-bottom: 6px;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    grid-template-rows: minmax(0, 1fr);
    min-height: 0;
  }
  .right {
    overflow: auto;
    display: grid;
    gap: 12px;
    align-content: start;
    padding-right: 4px;
  }
`;

const modes = ["By name", "By pain", "Keep off"] as const;
type Mode = (typeof modes)[number];
const areas = [
  "head-and-neck",
  "shoulder-girdle",
  "arm-and-hand",
  "trunk",
  "hip-and-thigh",
  "leg-and-foot",
] as const;
const positions = ["prone", "supine", "side-lying-left", "side-lying-right", "seated"] as const;
const layerNames = ["bones", "landmarks", "muscles", "keep off"];
const depths = ["all", "1", "2", "3", "4"] as const; // 1 is outermost

export default function Atlas() {
  const { core, error, retry } = useCore();
  const own = useQuery({ queryKey: ["own-atlas"], queryFn: () => must(api.GET("/api/atlas")) });
  if (error)
    return (
      <div style={{ padding: 24 }}>
        <Trouble error={error} onRetry={retry} />
      </div>
    );
  if (!core) return <Waiting>Opening the atlas…</Waiting>;
  return <Open core={core} own={own.data ?? { notes: [], sites: [] }} />;
}

function Open({ core, own }: { core: Core; own: Schemas["OwnAtlas"] }) {
  const { muscle } = useParams();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const side = params.get("side") === "right" ? "right" : "left";
  const other = params.get("with") ?? undefined;
  const [mode, setMode] = useState<Mode>("By name");
  const [query, setQuery] = useState<Schemas["Query"]>({});
  const [pair, setPair] = useState("Body");
  const [layers, setLayers] = useState<string[]>([]);
  const [depth, setDepth] = useState<(typeof depths)[number]>("all");
  const [spot, setSpot] = useState<{ view: View; x: number; y: number }>();
  const [keep, setKeep] = useState<string>();

  const all = useMemo(() => core.atlas({}), [core]);
  const actions = useMemo(
    () =>
      [...new Set(all.flatMap((m) => core.palpate(m.id, "left", 170).actions.map((a) => a.movement)))].sort(),
    [core, all],
  );
  const found = useMemo(() => core.atlas(query), [core, query]);
  const hurts = useMemo(() => (spot ? core.hurts(spot.view, spot.x, spot.y) : undefined), [core, spot]);
  const guide = useMemo(
    () => (muscle && all.some((m) => m.id === muscle) ? core.palpate(muscle, side, 170) : undefined),
    [core, all, muscle, side],
  );
  const second = useMemo(
    () => (other && other !== muscle ? core.palpate(other, side, 170) : undefined),
    [core, other, muscle, side],
  );
  const views = pairs[pair] ?? ["front", "back"];
  const sites = own.sites.filter((s) => s.muscle === muscle);

  const choose = (id: string, s: string = side, from?: string) => {
    const view = core.palpate(id, s, 170).sites[0]?.view as View | undefined;
    if (view && from === undefined) setPair(pairOf(view));
    void go(`/atlas/${id}?side=${s}`);
  };
  const drawn = (view: View): Schemas["Drawn"] => {
    const base = core.layers({
      view,
      depth: depth === "all" ? 0 : Number(depth),
      layers: [
        ...layers.filter((l) => l !== "keep off"),
        ...(layers.includes("keep off") || mode === "Keep off" ? ["structures"] : []),
      ],
    } as Schemas["Wanted"]);
    if (!guide) return base;
    const mine = core.layers({
      view,
      layers: ["muscles", "referral"],
      only: [guide.muscle],
      side,
    } as Schemas["Wanted"]);
    return {
      ...base,
      strands: [...base.strands.filter((s) => s.muscle !== guide.muscle), ...mine.strands],
      zones: mine.zones,
    };
  };
  const svgOf = (view: View) => {
    const wanted = [
      ...layers.filter((l) => l !== "keep off"),
      ...(layers.includes("keep off") ? ["structures"] : []),
      ...(guide ? ["muscles", "referral"] : []),
    ];
    return `/api/figure/${view}/svg?layers=${[...new Set(wanted)].join(",")}${guide ? `&only=${[guide.muscle, second?.muscle].filter(Boolean).join(",")}&side=${side}` : depth === "all" ? "" : `&depth=${depth}`}`;
  };
  const marks = (view: View): Mark[] => [
    ...(guide?.sites ?? [])
      .filter((s) => s.view === view)
      .map((s) => ({
        id: s.site,
        x: s.x,
        y: s.y,
        grade: 0,
        kind: "active" as const,
        label: s.name,
        angle: (guide?.trace_deg ?? 90) - 90,
      })),
    ...sites.flatMap((s) => {
      const at = core.place(s.muscle, side, s.place);
      return at.view === view
        ? [{ id: s.id, x: at.x, y: at.y, grade: 0, kind: "latent" as const, label: s.name }]
        : [];
    }),
  ];
  const touch = (view: View) => (p: { x: number; y: number }) => {
    if (mode === "By pain") setSpot({ view, ...p });
    else {
      const m = core.under(view, p.x, p.y, 170).muscles[0];
      if (m) choose(m.muscle, m.side, view);
    }
  };
  const structures =
    mode === "Keep off"
      ? views.flatMap((v) => core.layers({ view: v, layers: ["structures"] } as Schemas["Wanted"]).structures)
      : [];
  const listed = [...new Map(structures.map((s) => [s.structure, s])).values()].sort((a, b) =>
    a.name.localeCompare(b.name),
  );
  const chosen = listed.find((s) => s.structure === keep);
  return (
    <Room>
      <div className="left">
        <h1 className="away">Atlas</h1>
        <Choice label="Find" quiet value={mode} options={modes} onChoose={setMode} />
        {mode === "By name" && (
          <div style={{ display: "grid", gap: 8 }}>
            <Text
              label="Name, Latin or common"
              value={query.text ?? ""}
              onChange={(text) => setQuery({ ...query, text })}
            />
            <Pick
              label="Region"
              none="anywhere"
              value={query.region}
              options={areas}
              describe={(r) => sentence(plain(r))}
              onPick={(region) => setQuery({ ...query, region })}
            />
            <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 8 }}>
              <Pick
                label="Action"
                none="any"
                value={query.action}
                options={actions}
                describe={movementName}
                onPick={(action) => setQuery({ ...query, action })}
              />
              <Pick
                label="Client lies"
                none="any way"
                value={query.position as (typeof positions)[number]}
                options={positions}
                describe={(p) => sentence(plain(p))}
                onPick={(position) => setQuery({ ...query, position })}
              />
            </div>
          </div>
        )}
        {mode === "By pain" && <Places core={core} views={views} hurts={hurts} onSpot={setSpot} />}
        {mode === "Keep off" && (
          <p className="quiet" style={{ fontSize: 13.5 }}>
            Nerves, vessels and bones to keep off in these views. Courses vary: the sign counts more than the
            line.
          </p>
        )}
        <ul
          className="list"
          aria-label={
            mode === "By name"
              ? "Muscles"
              : mode === "Keep off"
                ? "Structures to keep off"
                : "Muscles that usually send pain there"
          }
        >
          {mode === "By name" &&
            found.map((m) => (
              <li key={m.id}>
                <button type="button" aria-current={m.id === muscle} onClick={() => choose(m.id)}>
                  <span>{m.name}</span>
                  <small>{m.kind === "contact" ? "contact" : `layer ${m.layer}`}</small>
                </button>
              </li>
            ))}
          {mode === "By name" && found.length === 0 && (
            <li className="quiet" style={{ padding: 10 }}>
              No muscle fits. Take a filter off, or look by where it hurts.
            </li>
          )}
          {mode === "By pain" &&
            hurts?.matches.slice(0, 40).map((m) => (
              <li key={m.muscle + m.side}>
                <button
                  type="button"
                  aria-current={m.muscle === muscle && m.side === side}
                  onClick={() => choose(m.muscle, m.side, "kept")}
                >
                  <span>
                    {m.name}, {m.side}
                  </span>
                  <small>
                    {m.essential ? "usual" : "spill-over"}
                    {m.distance_mm > 0 ? `, ${one(m.distance_mm)} mm off` : ""}
                  </small>
                  <i style={{ width: `${Math.max(4, m.score * 100)}%` }} />
                </button>
              </li>
            ))}
          {mode === "Keep off" &&
            listed.map((s) => (
              <li key={s.structure}>
                <button
                  type="button"
                  aria-current={keep === s.structure}
                  onFocus={() => setKeep(s.structure)}
                  onClick={() => setKeep(s.structure)}
                >
                  <span>{s.name}</span>
                </button>
              </li>
            ))}
        </ul>
      </div>
      <div className="body">
        <div className="tools">
          <Choice label="View" quiet value={pair} options={Object.keys(pairs)} onChoose={setPair} />
          <Choices
            label="Layers"
            quiet
            values={layers}
            options={layerNames}
            onChange={setLayers}
            describe={plain}
          />
          {layers.includes("muscles") && (
            <Choice
              label="Depth, 1 outermost"
              quiet
              value={depth}
              options={depths}
              onChoose={setDepth}
              describe={(d) => (d === "all" ? "all depths" : d)}
            />
          )}
        </div>
        <div className="pair">
          {views.map((v) => (
            <Figure
              key={v}
              view={v}
              drawn={drawn(v)}
              bright={mode === "Keep off" ? keep : guide?.muscle}
              marks={marks(v)}
              cursor={spot?.view === v ? spot : undefined}
              caption={
                <>
                  {viewName[v]} ·{" "}
                  <a href={svgOf(v)} download>
                    SVG
                  </a>
                </>
              }
              onTouch={touch(v)}
              onAim={(p) => setSpot({ view: v, ...p })}
              label={`${viewName[v]} of the body. ${mode === "By pain" ? "Touch where it hurts" : "Touch a muscle"}, or aim with the arrow keys and press Enter.`}
            >
              {second && <Second core={core} view={v} side={side} muscle={second.muscle} />}
            </Figure>
          ))}
        </div>
      </div>
      <div className="right">
        {chosen && mode === "Keep off" && (
          <Card>
            <h2>{chosen.name}</h2>
            <p style={{ marginTop: 8 }}>
              <b>Sign.</b> {chosen.sign}.
            </p>
            <p style={{ marginTop: 4 }}>
              <b>Then.</b> {chosen.do}
            </p>
          </Card>
        )}
        {!guide && !(chosen && mode === "Keep off") && (
          <Card>
            <h2>{mode === "By pain" ? "Touch the place" : "Choose a muscle"}</h2>
            <p className="quiet" style={{ marginTop: 6 }}>
              {mode === "By pain"
                ? "Touch the body where it hurts. The muscles whose usual pattern covers that place are listed, nearest first."
                : "Touch one on the body, or take it from the list. Referral patterns differ from person to person: a guide, never proof."}
            </p>
          </Card>
        )}
        {guide && mode !== "Keep off" && (
          <Facts
            key={guide.muscle}
            core={core}
            guide={guide}
            second={second}
            side={side}
            own={own}
            sites={sites}
            views={views}
            onSide={(s) => setParams({ side: s, ...(other ? { with: other } : {}) })}
            onOther={(m) => setParams(m ? { side, with: m } : { side })}
            all={all}
            onChoose={(m) => choose(m)}
          />
        )}
      </div>
    </Room>
  );
}

/** The other muscle of a comparison: hollow rings against the first one's dots. */
function Second({ core, view, side, muscle }: { core: Core; view: View; side: string; muscle: string }) {
  const d = useMemo(
    () => core.layers({ view, layers: ["muscles", "referral"], only: [muscle], side } as Schemas["Wanted"]),
    [core, view, side, muscle],
  );
  return (
    <g aria-hidden fill="none" stroke="var(--other)">
      {d.strands.map((s) => (
        <path
          key={s.belly}
          d={s.belly}
          strokeWidth={1.6}
          strokeDasharray="6 3"
          fill="var(--other)"
          fillOpacity={0.18}
        />
      ))}
      {d.zones.map((z) => (
        <g key={z.muscle} strokeWidth={z.size * 0.12}>
          {z.essential.map(([x, y]) => (
            <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.38} />
          ))}
          {z.spillover.map(([x, y]) => (
            <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.2} />
          ))}
        </g>
      ))}
    </g>
  );
}

/** Every region of the shown views by name, for those who do not touch. */
function Places({
  core,
  views,
  hurts,
  onSpot,
}: {
  core: Core;
  views: View[];
  hurts?: Schemas["HurtsOut"];
  onSpot: (s: { view: View; x: number; y: number }) => void;
}) {
  const a = useLattice(views[0] as View).data;
  const b = useLattice(views[1] as View).data;
  const options = useMemo(() => {
    const out: string[] = [];
    for (const [v, l] of [
      [views[0], a],
      [views[1], b],
    ] as const) {
      const seen = new Set<string>();
      for (const c of l?.cells ?? []) seen.add(`${v}|${l?.regions[c.g]}|${c.s}`);
      out.push(...[...seen].sort());
    }
    return out;
  }, [views, a, b]);
  const pick = (o: string | undefined) => {
    const [v = "", region = "", side = ""] = (o ?? "").split("|");
    const cells = v ? core.cells(v, [{ region, side }]).cells : [];
    const mx = cells.reduce((s, c) => s + (c[0] ?? 0), 0) / (cells.length || 1);
    const my = cells.reduce((s, c) => s + (c[1] ?? 0), 0) / (cells.length || 1);
    // The middle cell of the region, so that a bent region is still hit.
    const near = [...cells].sort(
      (p, q) =>
        Math.hypot((p[0] ?? 0) - mx, (p[1] ?? 0) - my) - Math.hypot((q[0] ?? 0) - mx, (q[1] ?? 0) - my),
    )[0];
    if (near) onSpot({ view: v as View, x: near[0] ?? 0, y: near[1] ?? 0 });
  };
  return (
    <div style={{ display: "grid", gap: 8 }}>
      <Pick
        label="Place"
        none="touch the body, or choose"
        value={undefined}
        options={options}
        onPick={pick}
        describe={(o) => {
          const [v, r = "", s] = o.split("|");
          return `${sentence(plain(r))}${s === "midline" ? "" : `, ${s}`} (${viewName[v as View].toLowerCase()})`;
        }}
      />
      <p aria-live="polite">
        <b>
          {hurts?.region
            ? `${sentence(plain(hurts.region))}${hurts.side === "midline" ? "" : `, ${hurts.side}`}`
            : ""}
        </b>
      </p>
    </div>
  );
}
