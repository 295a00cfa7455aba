// Posture readings with the caliper-inclinometer: any two of distance, height
// difference and slope; the core computes the third and judges them.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { useInclinometer, useInclinometerAddress } from "../../core/useInclinometer";
import { Button, Card, Choice, Num, Pick } from "../../parts/controls";
import { Tuned } from "../../parts/Tuned";
import { one, plain, sentence } from "../../parts/words";
import { play } from "../hold/tones";
import { Readout } from "./Instrument";
import type { StepProps } from "./Visit";

/** How each measure is read: a slope with a high side, a slope or a distance
 * on each side, or only which side. */
const measures: Record<
  string,
  {
    name: string;
    how: "slope-high" | "slope-side" | "cm-side" | "deg" | "which" | "curve";
    usual?: { deg: number; cm?: number };
  }
> = {
  "shoulder-height": {
    name: "Shoulder height, acromion to acromion",
    how: "slope-high",
    usual: { deg: 4, cm: 36 },
  },
  "pelvis-height": { name: "Pelvis height, crest to crest", how: "slope-high", usual: { deg: 3, cm: 28 } },
  "pelvic-tilt": { name: "Pelvic tilt, PSIS to ASIS", how: "slope-side", usual: { deg: 12, cm: 15 } },
  "scapula-distance": { name: "Blade's border to spine", how: "cm-side", usual: { deg: 1, cm: 8 } },
  "scapular-upward-rotation": {
    name: "Upward turn of the blade",
    how: "slope-side",
    usual: { deg: 6, cm: 12 },
  },
  "craniovertebral-angle": { name: "Forward head, tragus to C7", how: "deg", usual: { deg: 50, cm: 14 } },
  "shoulder-girdle-rotation": { name: "Shoulder girdle turned", how: "which" },
  "pelvis-rotation": { name: "Pelvis turned", how: "which" },
  "side-curve": { name: "Sideways curve", how: "which" },
  "lumbar-curve": { name: "Curve of the low back", how: "curve" },
  "acromion-to-table": { name: "Acromion to table, face-up", how: "cm-side", usual: { deg: 1, cm: 6 } },
};

/** A reading in words, with the side that is high, forward or convex. */
function valueOf(p: Schemas["Posture"]) {
  const side =
    p.high_side &&
    `${p.high_side} ${p.measure.includes("rotation") ? "forward" : p.measure === "side-curve" ? "convex" : "high"}`;
  return (
    [p.degrees !== undefined ? `${one(p.degrees)}°` : p.cm !== undefined ? `${one(p.cm)} cm` : p.kind, side]
      .filter(Boolean)
      .join(", ") || "none"
  );
}

/** "flagged from 3°", "noted, flagged from 3°", "flagged: sides differ by 2 cm …". */
function judged(f: Schemas["PostureFlag"]) {
  if (f.reason === "noted") return "noted";
  if (!f.flagged) return `noted, ${f.reason}`;
  return f.reason.startsWith("flagged") ? f.reason : `flagged: ${f.reason}`;
}

interface Draft {
  distance?: number;
  height?: number;
  slope?: number;
  cm?: number;
  kind?: string;
}

export function PostureCard({ visit }: StepProps) {
  const { state, core, write } = visit;
  const [measure, setMeasure] = useState<string>();
  const [side, setSide] = useState<string>();
  const [v, setV] = useState<Draft>({});
  const [error, setError] = useState("");
  const m = measure ? measures[measure] : undefined;
  const address = useInclinometerAddress();
  const [streaming, setStreaming] = useState(false);
  const [read, setRead] = useState<(string | undefined)[]>([]);
  const readable = m && m.how !== "which" && m.how !== "curve";
  const live = useInclinometer(
    core,
    streaming && readable ? address : undefined,
    "posture",
    m?.usual ?? { deg: 10 },
    (t) => {
      if (!m) return;
      play("taken");
      // Its right end up reads positive: on the client's back that is the right side.
      if (m.how === "cm-side") keep({ cm: t.distance_cm }, side);
      else if (m.how === "slope-high") keep({ slope: Math.abs(t.deg) }, t.deg < 0 ? "left" : "right");
      // Which way it leans depends on the side it is held from; the usual way is meant.
      else keep({ slope: Math.abs(t.deg) }, side);
      // One reading is enough, or one on each side.
      const sides = new Set([...read, side]);
      setRead([...sides]);
      if (!m.how.endsWith("-side") || sides.size === 2) setStreaming(false);
    },
  );
  const slopes = m?.how === "slope-high" || m?.how === "slope-side" || m?.how === "deg";
  /** Keeps what was typed, or what the instrument read. */
  const keep = (v: Draft, side?: string) => {
    if (!m || !measure) return;
    let degrees: number | undefined;
    if (slopes) {
      const two = [v.distance, v.height, v.slope].filter((x) => x !== undefined).length;
      try {
        degrees =
          two === 1 && v.slope !== undefined
            ? v.slope
            : core.slope({ distance_cm: v.distance, height_difference_cm: v.height, slope_deg: v.slope })
                .slope_deg;
      } catch (e) {
        setError(
          two === 2
            ? (e as Error).message
            : "Give the slope, or any two of distance, height difference and slope.",
        );
        return;
      }
    }
    if ((m.how === "slope-high" || m.how === "which" || m.how.endsWith("-side")) && !side) {
      setError(m.how.endsWith("-side") ? "Which side was read?" : "Which side is high, or forward?");
      return;
    }
    if (m.how === "cm-side" && v.cm === undefined) {
      setError("The distance in cm is missing.");
      return;
    }
    write("posture-read", {
      measure,
      ...(m.how.endsWith("-side") ? { side } : side ? { high_side: side } : {}),
      ...(degrees === undefined ? {} : { degrees: Math.round(degrees * 100) / 100 }),
      ...(m.how === "cm-side" ? { cm: v.cm } : {}),
      ...(m.how === "curve" ? { kind: v.kind ?? "usual" } : {}),
    });
    setV({});
    setError("");
    if (m.how.endsWith("-side")) setSide(side === "left" ? "right" : "left");
  };
  return (
    <Card style={{ display: "grid", gap: 10 }} data-posture>
      <h2>Posture</h2>
      <Pick
        label="Measure"
        none="choose what to read"
        value={measure}
        options={Object.keys(measures)}
        describe={(id) => measures[id]?.name ?? id}
        onPick={(x) => {
          setMeasure(x);
          setV({});
          setSide(undefined);
          setError("");
        }}
      />
      {m && (
        <>
          {m.how !== "deg" && m.how !== "curve" && (
            <Choice
              label={m.how.endsWith("-side") ? "Side read" : "Which side is high or forward"}
              value={side}
              options={["left", "right"]}
              onChoose={(s) => {
                setSide(s);
                setError("");
              }}
            />
          )}
          {slopes && (
            <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr 1fr", gap: 8 }}>
              <Num
                label="Distance"
                unit="cm"
                value={v.distance}
                min={0}
                max={300}
                step={0.1}
                onCommit={(distance) => setV({ ...v, distance })}
              />
              <Num
                label="Height difference"
                unit="cm"
                value={v.height}
                min={-300}
                max={300}
                step={0.1}
                onCommit={(height) => setV({ ...v, height })}
              />
              <Num
                label="Slope"
                unit="°"
                value={v.slope}
                min={-90}
                max={90}
                step={0.1}
                onCommit={(slope) => setV({ ...v, slope })}
              />
            </div>
          )}
          {m.how === "cm-side" && (
            <Num
              label="Distance"
              unit="cm"
              value={v.cm}
              min={0}
              max={100}
              step={0.1}
              onCommit={(cm) => setV({ ...v, cm })}
            />
          )}
          {m.how === "curve" && (
            <Choice
              label="It is, or it bends"
              value={v.kind}
              options={["flat", "usual", "deep", "even", "hinge"]}
              onChoose={(kind) => setV({ ...v, kind })}
            />
          )}
          {error && (
            <p role="alert" style={{ color: "var(--stop)" }}>
              {error}
            </p>
          )}
          {streaming && readable && (
            <Readout
              live={live}
              next={
                m.how.endsWith("-side") && !side
                  ? "Choose the side to read first."
                  : `${m.name}${m.how.endsWith("-side") ? `, ${side}` : ""}: taken when steady.`
              }
            />
          )}
          <div style={{ display: "flex", gap: 8 }}>
            <Button $kind="main" onPress={() => keep(v, side)}>
              Keep the reading
            </Button>
            {address && readable && (
              <Button
                aria-pressed={streaming}
                onPress={() => {
                  setRead([]);
                  setStreaming(!streaming);
                }}
              >
                {streaming ? "Stop the inclinometer" : "Take when steady"}
              </Button>
            )}
          </div>
        </>
      )}
      {state.posture.length > 0 && (
        <ul style={{ margin: 0, paddingLeft: 18 }}>
          {state.posture.map((p, i) => {
            const f = state.posture_flags[i];
            return (
              <li key={p.measure + (p.side ?? "")} style={{ color: f?.flagged ? "var(--warn)" : undefined }}>
                {measures[p.measure]?.name ?? sentence(plain(p.measure))}
                {p.side ? `, ${p.side}` : ""}: {valueOf(p)}
                <span className="quiet">
                  {" "}
                  · {f && judged(f)} ({f?.source})
                </span>
              </li>
            );
          })}
        </ul>
      )}
      <Thresholds visit={visit} />
    </Card>
  );
}

/** From where on each reading is flagged, for this practice. A change judges
 * the readings anew at once. */
function Thresholds({ visit }: StepProps) {
  const list = useMemo(() => visit.core.thresholds(), [visit.core]);
  const queries = useQueryClient();
  const own =
    useQuery({ queryKey: ["thresholds"], queryFn: () => must(api.GET("/api/thresholds")) }).data
      ?.thresholds ?? visit.open.context.thresholds;
  const keep = async (call: Promise<Schemas["OwnThresholds"]>) => {
    const t = await call;
    queries.setQueryData(["thresholds"], t);
    visit.rejudge({ ...visit.open.context, thresholds: t.thresholds });
  };
  const rows = list.map((t) => ({
    id: t.id,
    name: t.name,
    source: own[t.id] === undefined ? t.source : "set by this practice",
    fields: [
      {
        label: t.unit,
        value: own[t.id] ?? t.value,
        min: t.min,
        max: t.max,
        step: 0.5,
        onSet: (value: number) =>
          keep(
            must(
              api.PUT("/api/thresholds/{threshold}", {
                params: { path: { threshold: t.id } },
                body: { value },
              }),
            ),
          ),
      },
    ],
    ...(own[t.id] === undefined
      ? {}
      : {
          onReset: () =>
            keep(must(api.DELETE("/api/thresholds/{threshold}", { params: { path: { threshold: t.id } } }))),
        }),
  }));
  return (
    <Tuned
      name="thresholds"
      summary="Where each flag begins"
      note="Working defaults; below them a difference is noted, not hidden. The practice may set its own within bounds."
      rows={rows}
    />
  );
}
