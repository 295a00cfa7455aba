// The spine finder: a landmark gives a level, a level gives what lies one and
// two finger-widths beside it.
import { useQueryClient } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../api/client";
import { BodySvg, placeOn, useFigure } from "../body/BodySvg";
import type { Core } from "../core/core";
import { useCore } from "../core/useCore";
import { Button, Card, Choice, Num, Trouble, Waiting } from "../parts/controls";
import { one, plain, sentence } from "../parts/words";

const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 470px;
  gap: 18px;
  padding: 14px 22px 16px;
  min-height: 620px;
  > * {
    min-height: 0;
  }
  .body {
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: 16px;
    padding: 8px;
    display: grid;
    justify-items: center;
    grid-template-rows: minmax(0, 1fr) auto;
  }
  .body svg {
    height: 100%;
    max-width: 100%;
    cursor: pointer;
    outline-offset: -3px;
    border-radius: 12px;
  }
  .side {
    overflow: auto;
    display: grid;
    gap: 14px;
    align-content: start;
    padding-right: 4px;
  }
  .marks {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
  .big {
    font-family: var(--serif);
    font-size: 64px;
    line-height: 1;
    font-weight: 600;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  td,
  th {
    text-align: left;
    padding: 7px 8px 7px 0;
    border-top: 1px solid var(--line-soft);
    vertical-align: top;
  }
  th {
    font-weight: 560;
    color: var(--ink-soft);
    width: 150px;
  }
`;

/** Landmarks that mark a level, in words of the hand. */
const landmarks: { id: string; name: string }[] = [
  { id: "suboccipital-hollow", name: "Hollow below the skull" },
  { id: "first-spinous-below-occiput", name: "First tip below it" },
  { id: "scapula-spine-root", name: "Inner end of the blade's ridge" },
  { id: "scapula-inferior-angle", name: "Lower angle of the blade" },
  { id: "crest-scapula-midpoint", name: "Half-way, angle to crest" },
  { id: "iliac-crest", name: "Crest line" },
  { id: "above-sacral-hollow", name: "First bone above the sacral hollow" },
  { id: "psis", name: "Posterior iliac spine" },
];
const levels = [
  "C1",
  "C2",
  "C3",
  "C4",
  "C5",
  "C6",
  "C7",
  "T1",
  "T2",
  "T3",
  "T4",
  "T5",
  "T6",
  "T7",
  "T8",
  "T9",
  "T10",
  "T11",
  "T12",
  "L1",
  "L2",
  "L3",
  "L4",
  "L5",
  "S2",
];
const spots: [number, number, string][] = [
  [0, 0, "On the tip"],
  [1, 0, "One finger out"],
  [1, 1, "One out, one down"],
  [2, 0, "Two fingers out"],
  [3, 0, "Three fingers out"],
];

export default function Spine({ me }: { me: Schemas["Me"] }) {
  const { core, error, retry } = useCore();
  if (error)
    return (
      <div style={{ padding: 24 }}>
        <Trouble error={error} onRetry={retry} />
      </div>
    );
  if (!core) return <Waiting>Opening the spine…</Waiting>;
  return <Finder core={core} me={me} />;
}

function Finder({ core, me }: { core: Core; me: Schemas["Me"] }) {
  const { data } = useFigure("back");
  const svg = useRef<SVGSVGElement>(null);
  const [level, setLevel] = useState("L4");
  const [by, setBy] = useState<string | undefined>("iliac-crest");
  const [from, setFrom] = useState<string>();
  const finger = me.finger_cm ?? 1.8;
  const found = useMemo(
    () => (by ? core.level({ landmark: by } as Schemas["LevelIn"]) : undefined),
    [core, by],
  );
  const beside = useMemo(
    () =>
      spots.map(([out, down, name]) => ({
        out,
        down,
        name,
        at: core.level({
          level,
          fingers_lateral: out,
          fingers_down: down,
          finger_cm: finger,
        } as Schemas["LevelIn"]),
      })),
    [core, level, finger],
  );
  const drawn = useMemo(() => core.layers({ view: "back", layers: ["bones"] } as Schemas["Wanted"]), [core]);
  const tips = useMemo(() => (data?.landmarks ?? []).filter((l) => levels.includes(l.id)), [data]);
  const here = tips.find((t) => t.id === level);
  const mark = (data?.landmarks ?? []).filter((l) => l.id === by);
  const perCM = 1000 / 170;
  const choose = (l: string, landmark?: string) => {
    setLevel(l);
    setBy(landmark);
  };
  const touch = (p: { x: number; y: number }) => {
    // A touch on one of the landmarks means it; elsewhere the nearest tip.
    const near = (data?.landmarks ?? [])
      .filter((l) => landmarks.some((m) => m.id === l.id) && l.side !== "midline")
      .find((l) => Math.hypot(l.x - p.x, l.y - p.y) < 12);
    if (near) {
      choose(core.level({ landmark: near.id } as Schemas["LevelIn"]).level, near.id);
      return;
    }
    const tip = [...tips].sort((a, b) => Math.abs(a.y - p.y) - Math.abs(b.y - p.y))[0];
    if (tip) choose(tip.id);
  };
  const steps = from ? levels.indexOf(level) - levels.indexOf(from) : 0;
  return (
    <Room>
      <figure className="body" style={{ margin: 0 }}>
        <BodySvg
          svg={svg}
          view="back"
          drawn={drawn}
          window={[-6, 58, 492, 464]}
          role="application"
          tabIndex={0}
          aria-label={`The spine, ${level} chosen. Up and down choose a level.`}
          onPointerDown={(e) => touch(placeOn(svg.current, e))}
          onKeyDown={(e) => {
            const d = e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
            const n = levels[levels.indexOf(level) + d];
            if (d && n) {
              e.preventDefault();
              choose(n);
            }
          }}
        >
          <g>
            {tips.map((t) => (
              <circle
                key={t.id}
                cx={t.x}
                cy={t.y}
                r={t.id === level ? 5.4 : 2.5}
                fill={t.id === level ? "var(--accent)" : "var(--card)"}
                stroke="var(--accent)"
                strokeWidth={1}
              />
            ))}
            {tips
              .filter(
                (t) =>
                  ["C2", "C7", "T3", "T7", "T12", "L4", "S2"].includes(t.id) ||
                  t.id === level ||
                  t.id === from,
              )
              .map((t) => (
                <text
                  key={t.id}
                  x={t.x - 13}
                  y={t.y + 3.4}
                  fontSize={t.id === level ? 13 : 9.5}
                  fontWeight={t.id === level ? 700 : 500}
                  textAnchor="end"
                  fill="var(--ink)"
                  stroke="var(--card)"
                  strokeWidth={3}
                  paintOrder="stroke"
                >
                  {t.id}
                </text>
              ))}
            {mark.map(
              (m) =>
                here &&
                m.id !== level && (
                  <g key={m.side}>
                    <line
                      x1={m.x}
                      y1={m.y}
                      x2={here.x}
                      y2={here.y}
                      stroke="var(--accent)"
                      strokeWidth={1}
                      strokeDasharray="4 3"
                    />
                    <circle cx={m.x} cy={m.y} r={4} fill="var(--accent)" stroke="var(--card)" />
                  </g>
                ),
            )}
            {from &&
              from !== level &&
              here &&
              tips
                .filter((t) => t.id === from)
                .map((t) => (
                  <line
                    key="count"
                    x1={t.x - 5}
                    y1={t.y}
                    x2={here.x - 5}
                    y2={here.y}
                    stroke="var(--right)"
                    strokeWidth={2.4}
                  />
                ))}
            {here &&
              beside
                .filter((b) => b.out > 0)
                .map((b) => {
                  const x = here.x + b.out * finger * perCM,
                    y = here.y + b.down * finger * perCM;
                  return (
                    <g key={b.name}>
                      <rect
                        x={x - (finger * perCM) / 2}
                        y={y - 5.5}
                        width={finger * perCM}
                        height={11}
                        rx={5.2}
                        fill="var(--point)"
                        fillOpacity={0.16}
                        stroke="var(--point)"
                        strokeWidth={0.9}
                      />
                      <text
                        x={x}
                        y={y + 3.2}
                        fontSize={9}
                        textAnchor="middle"
                        fill="var(--ink)"
                        fontWeight={650}
                      >
                        {b.out}
                        {b.down ? "↓" : ""}
                      </text>
                    </g>
                  );
                })}
          </g>
        </BodySvg>
        <figcaption className="quiet" style={{ fontSize: 12.5 }}>
          Touch a landmark or a spinous tip. Bars are your finger-widths.
        </figcaption>
      </figure>
      <div className="side">
        <h1 className="away">Spine finder</h1>
        <Card>
          <div style={{ display: "flex", gap: 18, alignItems: "center" }}>
            <span className="big" data-level>
              {level}
            </span>
            <p style={{ flex: 1 }}>
              {found && found.level === level ? found.text : "Chosen on the spine."}{" "}
              <span className="quiet">Palpated levels are ± 1.</span>
            </p>
          </div>
          <div style={{ display: "flex", gap: 8, alignItems: "center", marginTop: 12, flexWrap: "wrap" }}>
            <Button onPress={() => setFrom(level)}>Count from {level}</Button>
            {from && (
              <p aria-live="polite">
                {steps === 0
                  ? `Counting from ${from}: touch another level.`
                  : `${level} is ${Math.abs(steps)} ${steps > 0 ? "below" : "above"} ${from}.`}
              </p>
            )}
          </div>
        </Card>
        <Card>
          <h2 style={{ marginBottom: 8 }}>Landmarks</h2>
          <div className="marks">
            {landmarks.map((l) => (
              <Button
                key={l.id}
                aria-pressed={by === l.id}
                $kind={by === l.id ? "main" : "plain"}
                onPress={() => choose(core.level({ landmark: l.id } as Schemas["LevelIn"]).level, l.id)}
                style={{ fontSize: 14, padding: "6px 10px" }}
              >
                {l.name}
              </Button>
            ))}
          </div>
        </Card>
        <Card>
          <h2>Beside {level}</h2>
          <table data-beside>
            <tbody>
              {beside.map((b) => (
                <tr key={b.name}>
                  <th scope="row">
                    {b.name}
                    <br />
                    <span style={{ fontWeight: 400 }}>{b.out ? `${one(b.at.out_cm)} cm` : ""}</span>
                  </th>
                  <td>
                    <b>
                      {sentence(plain(b.at.structure ?? ""))}
                      {b.at.level !== level && b.at.structure !== "soft-tissue" ? ` of ${b.at.level}` : ""}
                    </b>
                    <br />
                    <span className="quiet">{b.at.text}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Card>
        <Finger me={me} />
      </div>
    </Room>
  );
}

/** The therapist's own finger-width, asked once. */
function Finger({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [cm, setCM] = useState<number | undefined>(me.finger_cm ?? 1.8);
  const [error, setError] = useState<Error>();
  const keep = async () => {
    try {
      queries.setQueryData(["me"], await must(api.PUT("/api/me/finger", { body: { cm: cm ?? 1.8 } })));
      setError(undefined);
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Card>
      <h2>Your finger-width</h2>
      <p className="quiet" style={{ margin: "4px 0 10px" }}>
        {me.finger_cm
          ? "Used for every distance that Mokren gives you."
          : "Asked once: lay the index finger on a ruler, at its middle joint. Until then 1.8 cm."}
      </p>
      {error && <Trouble error={error} />}
      <div style={{ display: "flex", gap: 10, alignItems: "end", flexWrap: "wrap" }}>
        <Choice label="cm" value={cm} options={[1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.1]} onChoose={setCM} />
        <div style={{ width: 84 }}>
          <Num label="other" unit="cm" value={cm} min={1} max={3} step={0.1} onCommit={setCM} />
        </div>
        <Button $kind="main" isDisabled={cm === undefined || cm === me.finger_cm} onPress={keep}>
          Keep
        </Button>
      </div>
    </Card>
  );
}
