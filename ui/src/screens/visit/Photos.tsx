// Posture photographs: taken in, marked, measured against the plumb line, two
// dates laid over each other.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../../api/client";
import { placeOn } from "../../body/BodySvg";
import { uuidv7 } from "../../core/ids";
import { Button, Card, Choice, Pick, Trouble, Waiting } from "../../parts/controls";
import { day, one, plain, sentence } from "../../parts/words";
import type { StepProps } from "./Visit";

type Photo = Schemas["StoredPhoto"];
const views = ["front", "back", "left", "right"] as const;

const usePhotos = (client: string) =>
  useQuery({
    queryKey: ["photos", client],
    queryFn: () => must(api.GET("/api/clients/{id}/photos", { params: { path: { id: client } } })),
  });

const Slots = styled.div`
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
  margin-top: 10px;
  .slot {
    display: grid;
    gap: 6px;
    align-content: start;
  }
  img {
    width: 100%;
    aspect-ratio: 7 / 11;
    object-fit: cover;
    border-radius: 10px;
    border: 1px solid var(--line);
    display: block;
  }
  label.add {
    display: grid;
    place-items: center;
    aspect-ratio: 7 / 11;
    border: 1.5px dashed var(--line);
    border-radius: 10px;
    cursor: pointer;
    color: var(--ink-soft);
    font-weight: 560;
    text-align: center;
    padding: 6px;
  }
  label.add:focus-within {
    outline: 3px solid var(--focus);
  }
  input[type="file"] {
    position: absolute;
    opacity: 0;
    width: 1px;
    height: 1px;
  }
`;

export function PhotosCard({ visit }: StepProps) {
  const { open } = visit;
  const queries = useQueryClient();
  const photos = usePhotos(open.client.id);
  const [error, setError] = useState<Error>();
  const [busy, setBusy] = useState<string>();
  const add = async (view: string, file: File | undefined) => {
    if (!file) return;
    setError(undefined);
    setBusy(view);
    try {
      const r = await fetch(`/api/visits/${open.visit.id}/photos/${uuidv7()}?view=${view}`, {
        method: "PUT",
        body: file,
        headers: { "Content-Type": file.type || "application/octet-stream" },
      });
      if (!r.ok) {
        const p = (await r.json().catch(() => ({}))) as Schemas["ErrorModel"];
        throw new Problem(
          r.status,
          p.errors?.[0]?.message?.replace("allowed: ", "Not taken in: ") ??
            p.detail ??
            "The picture was not taken in.",
        );
      }
      await queries.invalidateQueries({ queryKey: ["photos", open.client.id] });
    } catch (e) {
      setError(
        e instanceof Problem ? e : new Problem(0, "No connection just now. Choose the picture again later."),
      );
    }
    setBusy(undefined);
  };
  const here = (view: string) => photos.data?.items.find((p) => p.view === view && p.visit === open.visit.id);
  return (
    <Card data-photos>
      <h2>Photographs</h2>
      <p className="quiet" style={{ marginTop: 4 }}>
        Feet hip-width apart; march on the spot, eyes shut, arms hanging, one breath out. Where a picture was
        taken is not kept.
      </p>
      {error && <Trouble error={error} />}
      <Slots>
        {views.map((v) => {
          const p = here(v);
          return (
            <div key={v} className="slot">
              {p ? (
                <Link to={`/visits/${open.visit.id}/photo/${p.id}`}>
                  <img src={`/api/photos/${p.id}/thumb`} alt={`${sentence(v)}, measure it`} />
                </Link>
              ) : (
                <label className="add">
                  {busy === v ? "Taking in…" : `Add ${v}`}
                  <input
                    type="file"
                    accept="image/jpeg,image/png"
                    aria-label={`Photograph from the ${v}`}
                    onChange={(e) => {
                      void add(v, e.target.files?.[0]);
                      e.target.value = "";
                    }}
                  />
                </label>
              )}
              <span className="quiet" style={{ fontSize: 13 }}>
                {sentence(v)}
                {(photos.data?.items.filter((x) => x.view === v && x.visit !== open.visit.id).length ?? 0) >
                  0 && (
                  <>
                    {" "}
                    ·{" "}
                    <Link
                      to={`/visits/${open.visit.id}/photo/${photos.data?.items.find((x) => x.view === v && x.visit !== open.visit.id)?.id}`}
                    >
                      earlier
                    </Link>
                  </>
                )}
              </span>
            </div>
          );
        })}
      </Slots>
    </Card>
  );
}

const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 396px;
  gap: 16px;
  padding: 14px 22px 16px;
  min-height: 600px;
  > * {
    min-height: 0;
    min-width: 0;
  }
  .stage {
    background: var(--card);
    border: 1px solid var(--line-soft);
    border-radius: 16px;
    padding: 10px;
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: minmax(0, 1fr);
    gap: 10px;
  }
  .stage svg {
    width: 100%;
    height: 100%;
    touch-action: none;
  }
  .side {
    overflow: auto;
    display: grid;
    gap: 14px;
    align-content: start;
    padding-right: 4px;
  }
  [data-point] {
    cursor: grab;
  }
  [data-point]:focus {
    outline: none;
  }
  [data-point]:focus-visible circle {
    stroke: var(--focus);
    stroke-width: 5;
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto auto;
    gap: 4px 14px;
    margin: 8px 0 0;
  }
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    text-align: right;
  }
`;
const paired = ["acromion", "iliac-crest", "asis", "psis", "ear-lobe", "eye", "knee", "ankle"];
const single = [
  "tragus",
  "C7",
  "acromion",
  "asis",
  "psis",
  "iliac-crest",
  "greater-trochanter",
  "knee",
  "ankle",
];

export default function PhotoRoom({ me }: { me: Schemas["Me"] }) {
  const { id = "", photo = "" } = useParams();
  const visit = useQuery({
    queryKey: ["visit", id],
    queryFn: () => must(api.GET("/api/visits/{id}", { params: { path: { id } } })),
  });
  const photos = usePhotos(visit.data?.client.id ?? "");
  if (visit.error)
    return (
      <div style={{ padding: 24 }}>
        <Trouble error={visit.error} onRetry={() => visit.refetch()} />
      </div>
    );
  const p = photos.data?.items.find((x) => x.id === photo);
  if (!visit.data || !photos.data) return <Waiting>Opening the picture…</Waiting>;
  if (!p)
    return (
      <div style={{ padding: 24 }}>
        <Trouble error={new Error("There is no such photograph, or it was removed.")} />
      </div>
    );
  return (
    <Measure
      key={p.id}
      me={me}
      photo={p}
      visit={id}
      client={visit.data.client}
      others={photos.data.items.filter((x) => x.view === p.view && x.id !== p.id)}
    />
  );
}

function Measure({
  me,
  photo,
  visit,
  client,
  others,
}: {
  me: Schemas["Me"];
  photo: Photo;
  visit: string;
  client: Schemas["Client"];
  others: Photo[];
}) {
  const queries = useQueryClient();
  const go = useNavigate();
  const flat = photo.view === "front" || photo.view === "back";
  const first = (): Schemas["Photo"] =>
    photo.marks ?? {
      view: photo.view,
      plumb: [
        [photo.width * 0.1, photo.height * 0.05],
        [photo.width * 0.1, photo.height * 0.95],
      ],
      landmarks: {},
      ...(client.height_cm ? { height_cm: client.height_cm } : {}),
    };
  const [marks, setMarks] = useState<Schemas["Photo"]>(first);
  const [grid, setGrid] = useState(true);
  const [other, setOther] = useState<string | undefined>(others[0]?.id);
  const [how, setHow] = useState("side by side");
  const [cut, setCut] = useState(50);
  const [error, setError] = useState<Error>();
  const [saved, setSaved] = useState(photo);
  const missing = (flat ? paired.flatMap((l) => [`${l}-left`, `${l}-right`]) : single).filter(
    (l) => !marks.landmarks[l],
  );
  const timer = useRef<number>(undefined);
  const revision = useRef(photo.revision);
  const sending = useRef(Promise.resolve());
  const keep = (m: Schemas["Photo"]) => {
    setMarks(m);
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => {
      // One after the other, or a slow answer makes the next one look stale.
      sending.current = sending.current.then(async () => {
        try {
          const p = await must(
            api.PUT("/api/photos/{id}/marks", {
              params: { path: { id: photo.id }, query: { revision: revision.current } },
              body: m,
            }),
          );
          revision.current = p.revision;
          setSaved(p);
          setError(undefined);
        } catch (e) {
          setError(e as Error);
        }
      });
    }, 350);
  };
  useEffect(
    () => () => {
      void queries.invalidateQueries({ queryKey: ["photos", client.id] });
    },
    [queries, client.id],
  );
  const second = others.find((o) => o.id === other);
  const remove = async (gone: boolean) => {
    try {
      await must(
        gone
          ? api.POST("/api/photos/{id}/remove", { params: { path: { id: photo.id } } })
          : api.POST("/api/photos/{id}/restore", { params: { path: { id: photo.id } } }),
      );
      setGone(gone);
    } catch (e) {
      setError(e as Error);
    }
  };
  const [gone, setGone] = useState(false);
  const rows = [
    ...new Set([
      ...Object.keys(saved.measured?.angles ?? {}),
      ...Object.keys(second?.measured?.angles ?? {}),
    ]),
  ];
  const offsets = [
    ...new Set([
      ...Object.keys(saved.measured?.offsets ?? {}),
      ...Object.keys(second?.measured?.offsets ?? {}),
    ]),
  ];
  const off = (m: Photo["measured"], l: string) => {
    const v = m?.offsets[l];
    if (v === undefined) return "–";
    const n = m?.unit === "cm" ? v : v * 100;
    return Math.abs(n) < 0.05
      ? "0"
      : `${one(Math.abs(n))}${m?.unit === "cm" ? " cm" : "%"} ${flat ? (n > 0 ? "left" : "right") : n > 0 ? "forward" : "back"}`;
  };
  const swipe = second && how === "swiped";
  return (
    <Room>
      <div className="stage">
        <Picture
          photo={photo}
          marks={marks}
          grid={grid}
          onMarks={keep}
          over={swipe ? second : undefined}
          cut={cut}
        />
        {second && !swipe && <Picture photo={second} marks={second.marks ?? undefined} grid={grid} />}
      </div>
      <div className="side">
        <Card>
          <h1 style={{ fontSize: 22 }}>
            {sentence(photo.view)}, {day(photo.starts_at, me.time_zone)}
          </h1>
          <p className="quiet" style={{ marginTop: 4 }}>
            Drag a mark, or nudge it with the arrow keys (Shift for ten). The two ends of the plumb go onto
            the line that hangs.
          </p>
          {error && <Trouble error={error} />}
          <div style={{ display: "grid", gap: 10, marginTop: 10 }}>
            <Pick
              label="Drop a landmark"
              none="choose one"
              value={undefined}
              options={missing}
              describe={(l) => sentence(plain(l))}
              onPick={(l) =>
                l &&
                keep({
                  ...marks,
                  landmarks: {
                    ...marks.landmarks,
                    [l]: [
                      photo.width / 2 + (l.endsWith("-left") === (photo.view === "front") ? 40 : -40),
                      photo.height * 0.3,
                    ],
                  },
                })
              }
            />
            <Choice
              quiet
              label="Grid"
              value={grid ? "grid" : "no grid"}
              options={["grid", "no grid"]}
              onChoose={(g) => setGrid(g === "grid")}
            />
            {others.length > 0 && (
              <Pick
                label="Beside it"
                none="no second picture"
                value={other}
                options={others.map((o) => o.id)}
                describe={(o) => day(others.find((x) => x.id === o)?.starts_at ?? "", me.time_zone)}
                onPick={setOther}
              />
            )}
            {second && (
              <Choice
                quiet
                label="How to compare"
                value={how}
                options={["side by side", "swiped"]}
                onChoose={setHow}
              />
            )}
            {swipe && (
              <label>
                Swipe{" "}
                <input
                  type="range"
                  min={0}
                  max={100}
                  value={cut}
                  onChange={(e) => setCut(Number(e.target.value))}
                  style={{ width: "100%" }}
                />
              </label>
            )}
          </div>
        </Card>
        <Card data-angles>
          <h2>Measured</h2>
          <p className="quiet">
            Camera roll {one(saved.measured?.roll_deg).replace("-", "−")}°, taken out of everything below.
          </p>
          {rows.length === 0 ? (
            <p className="quiet" style={{ marginTop: 6 }}>
              {flat ? "Drop both acromia or both crests." : "Drop tragus and C7, or ASIS and PSIS."}
            </p>
          ) : (
            <dl>
              <dt />
              <dd>
                <b>{day(photo.starts_at, me.time_zone)}</b>
              </dd>
              <dd>{second ? day(second.starts_at, me.time_zone) : ""}</dd>
              {rows.map((r) => {
                const say = (v: number | undefined) =>
                  v === undefined
                    ? "–"
                    : flat
                      ? `${one(Math.abs(v))}°${Math.abs(v) < 0.05 ? "" : v > 0 ? " left high" : " right high"}`
                      : `${one(v)}°`;
                return [
                  <dt key={r}>{sentence(plain(r))}</dt>,
                  <dd key={`${r}a`}>{say(saved.measured?.angles[r])}</dd>,
                  <dd key={`${r}b`} className="quiet">
                    {second ? say(second.measured?.angles[r]) : ""}
                  </dd>,
                ];
              })}
            </dl>
          )}
          {offsets.length > 0 && (
            <details data-offsets>
              <summary style={{ cursor: "pointer", marginTop: 10 }}>
                From the plumb line{saved.measured?.unit === "fraction" && ", in % of its length"}
              </summary>
              <dl>
                {offsets.map((l) => [
                  <dt key={l}>{sentence(plain(l))}</dt>,
                  <dd key={`${l}a`}>{off(saved.measured, l)}</dd>,
                  <dd key={`${l}b`} className="quiet">
                    {second ? off(second.measured, l) : ""}
                  </dd>,
                ])}
              </dl>
            </details>
          )}
        </Card>
        <div style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
          <Button onPress={() => go(`/visits/${visit}?step=measure`)}>Back to the visit</Button>
          {gone ? (
            <Button onPress={() => remove(false)}>Bring the picture back</Button>
          ) : (
            <Button $kind="stop" onPress={() => remove(true)}>
              Remove the picture
            </Button>
          )}
        </div>
      </div>
    </Room>
  );
}

function Picture({
  photo,
  marks,
  grid,
  onMarks,
  over,
  cut = 50,
}: {
  photo: Photo;
  marks?: Schemas["Photo"];
  grid: boolean;
  onMarks?: (m: Schemas["Photo"]) => void;
  over?: Photo;
  cut?: number;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<string>();
  const k = photo.height / 1000;
  const points = useMemo(
    () =>
      marks
        ? ([["plumb-0", marks.plumb[0]], ["plumb-1", marks.plumb[1]], ...Object.entries(marks.landmarks)] as [
            string,
            number[],
          ][])
        : [],
    [marks],
  );
  const move = (id: string, x: number, y: number) => {
    if (!marks || !onMarks) return;
    const at = [Math.min(photo.width, Math.max(0, x)), Math.min(photo.height, Math.max(0, y))];
    if (id.startsWith("plumb-"))
      onMarks({
        ...marks,
        plumb: (id === "plumb-0" ? [at, marks.plumb[1]] : [marks.plumb[0], at]) as typeof marks.plumb,
      });
    else onMarks({ ...marks, landmarks: { ...marks.landmarks, [id]: at as never } });
  };
  const keys = (id: string, at: number[]) => (e: KeyboardEvent) => {
    const d: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const m = d[e.key];
    if (!m) return;
    e.preventDefault();
    const by = e.shiftKey ? 10 : 1;
    move(id, (at[0] ?? 0) + m[0] * by, (at[1] ?? 0) + m[1] * by);
  };
  // Grid and cross-lines follow the plumb, not the camera.
  const top = marks?.plumb[0] ?? [0, 0],
    low = marks?.plumb[1] ?? [0, photo.height];
  const roll = (Math.atan2(-((low[0] ?? 0) - (top[0] ?? 0)), (low[1] ?? 0) - (top[1] ?? 0)) * 180) / Math.PI;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${photo.width} ${photo.height}`}
      aria-label={`Photograph, ${photo.view}`}
      role="group"
      onPointerMove={(e) => {
        if (drag) {
          const p = placeOn(svg.current, e);
          move(drag, p.x, p.y);
        }
      }}
      onPointerUp={() => setDrag(undefined)}
    >
      <image href={`/api/photos/${photo.id}/image`} width={photo.width} height={photo.height} />
      {over && (
        <>
          <clipPath id={`cut-${over.id}`}>
            <rect x={(photo.width * cut) / 100} width={photo.width} height={photo.height} />
          </clipPath>
          <image
            href={`/api/photos/${over.id}/image`}
            width={photo.width}
            height={photo.height}
            clipPath={`url(#cut-${over.id})`}
          />
          <line
            x1={(photo.width * cut) / 100}
            x2={(photo.width * cut) / 100}
            y1={0}
            y2={photo.height}
            stroke="#fff"
            strokeWidth={2 * k}
          />
        </>
      )}
      {grid && (
        <g
          transform={`rotate(${roll} ${photo.width / 2} ${photo.height / 2})`}
          stroke="#ffffff"
          strokeOpacity={0.45}
          strokeWidth={k}
          aria-hidden
        >
          {Array.from({ length: 23 }, (_, i) => (
            <line
              key={`h${i}`}
              x1={-photo.width}
              x2={photo.width * 2}
              y1={(photo.height / 20) * (i - 1)}
              y2={(photo.height / 20) * (i - 1)}
            />
          ))}
          {Array.from({ length: 23 }, (_, i) => (
            <line
              key={`v${i}`}
              y1={-photo.height}
              y2={photo.height * 2}
              x1={photo.width / 2 + (photo.height / 20) * (i - 11)}
              x2={photo.width / 2 + (photo.height / 20) * (i - 11)}
            />
          ))}
        </g>
      )}
      {marks && (
        <g>
          <line x1={top[0]} y1={top[1]} x2={low[0]} y2={low[1]} stroke="#ffd27a" strokeWidth={2.6 * k} />
          {["acromion", "iliac-crest", "asis", "psis", "ear-lobe", "eye"].map((l) => {
            const a = marks.landmarks[`${l}-left`],
              b = marks.landmarks[`${l}-right`];
            return a && b ? (
              <line
                key={l}
                x1={a[0]}
                y1={a[1]}
                x2={b[0]}
                y2={b[1]}
                stroke="#ffd27a"
                strokeWidth={2.6 * k}
                strokeDasharray={`${8 * k} ${5 * k}`}
              />
            ) : null;
          })}
          {points.map(([id, at]) => (
            <g
              key={id}
              data-point={id}
              tabIndex={onMarks ? 0 : undefined}
              role={onMarks ? "button" : "img"}
              aria-label={`${sentence(plain(id.replace("plumb-0", "plumb, upper end").replace("plumb-1", "plumb, lower end")))}; arrow keys nudge`}
              transform={`translate(${at[0]} ${at[1]})`}
              onKeyDown={keys(id, at)}
              onPointerDown={(e) => {
                if (onMarks) {
                  svg.current?.setPointerCapture(e.pointerId);
                  setDrag(id);
                }
              }}
            >
              <circle
                r={id.startsWith("plumb") ? 9 * k : 8 * k}
                fill={id.startsWith("plumb") ? "#ffd27a" : "#2f5d54"}
                fillOpacity={0.85}
                stroke="#fff"
                strokeWidth={2.4 * k}
              />
            </g>
          ))}
        </g>
      )}
    </svg>
  );
}
