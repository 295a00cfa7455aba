// Range of motion as arcs; the same screen before and after.
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Arc, type Hand } from "../../charts/Arc";
import { Button, Card, Choice, Num } from "../../parts/controls";
import { jointNames, movementName, plain, sentence } from "../../parts/words";
import { ByInstrument, type Slot } from "./ByInstrument";
import { PhotosCard } from "./Photos";
import { PostureCard } from "./PostureCard";
import { GaugesCard, SignsCard } from "./Signs";
import { type Part, partNames, parts } from "./steps";
import type { StepProps } from "./Visit";

/** Shown when nothing was measured before and no joint is chosen. */
const first = [
  "cervical.rotation",
  "cervical.lateral-flexion",
  "lumbar.flexion",
  "lumbar.lateral-flexion",
  "ankle.dorsiflexion-knee-straight",
  "ankle.dorsiflexion-knee-bent",
];
const jointOf = (movement: string) => movement.split(".")[0] ?? "";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 12px;
  .entry {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }
  .three {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .three input {
    width: 100%;
  }
  h3 {
    font-size: 15px;
  }
  .flag {
    color: var(--warn);
    font-size: 13px;
    min-height: 20px;
    margin-top: 4px;
  }
`;

/** The reading whose place a touch on the body says: where it is felt. */
export interface Feeling {
  movement: string;
  side: string;
}
interface Placing {
  feeling?: Feeling;
  setFeeling: (f: Feeling | undefined) => void;
}

/** A reading before treatment with some of its values set anew; what it kept
 * stays. */
export function measured(
  old: Partial<Schemas["Range"]>,
  over: Partial<Schemas["Measured"]>,
): Partial<Schemas["Measured"]> {
  return {
    movement: old.movement,
    side: old.side,
    moment: "before",
    tool: old.tool,
    ...(old.trials ? { trials: old.trials } : { active_deg: old.before }),
    passive_deg: old.passive,
    pain_nprs: old.before_pain,
    felt: old.felt,
    felt_region: old.felt_region,
    end_feel: old.end_feel,
    ...over,
  };
}

export function MeasureParts({
  visit,
  part,
  onPart,
  ...placing
}: StepProps & Placing & { part: Part; onPart: (p: Part) => void }) {
  return (
    <>
      <Choice
        quiet
        label="What to measure"
        value={part}
        options={parts}
        describe={(p) => partNames[p]}
        onChoose={onPart}
      />
      {part === "range" && <MeasureStep visit={visit} moment="before" placing={placing} />}
      {part === "posture" && <PostureCard visit={visit} />}
      {part === "signs" && (
        <>
          <SignsCard visit={visit} />
          <GaugesCard visit={visit} moment="before" />
        </>
      )}
      {part === "photos" && <PhotosCard visit={visit} />}
    </>
  );
}

/** Where it is felt, said by a touch on the body. */
function Where({
  at,
  placing,
  onOff,
}: {
  at?: Schemas["Range"];
  placing?: Placing;
  onOff: (r: Schemas["Range"]) => void;
}) {
  if (!at || !placing || !(at.felt || at.before_pain)) return null;
  const now = placing.feeling?.movement === at.movement && placing.feeling.side === at.side;
  return (
    <div style={{ display: "flex", gap: 8, alignItems: "center" }}>
      {at.felt_region && (
        <Button aria-label={`${plain(at.felt_region)}: take it off`} onPress={() => onOff(at)}>
          {plain(at.felt_region)}
        </Button>
      )}
      <Button
        $kind={now ? "main" : "plain"}
        aria-pressed={now}
        onPress={() => placing.setFeeling(now ? undefined : { movement: at.movement, side: at.side })}
      >
        {now ? "Touch the body where it is felt" : "Show where it is felt"}
      </Button>
    </div>
  );
}

export function MeasureStep({
  visit,
  moment,
  only,
  placing,
}: StepProps & { moment: "before" | "after"; only?: string[]; placing?: Placing }) {
  const { open, state, core, write } = visit;
  const course = useQuery({
    queryKey: ["course", open.client.id],
    queryFn: () => must(api.GET("/api/clients/{id}", { params: { path: { id: open.client.id } } })),
  });
  const [joint, setJoint] = useState<string>();
  const [tool, setTool] = useState(state.ranges.find((r) => r.tool)?.tool ?? "inclinometer");
  const all = useMemo(() => core.movements(), [core]);
  const before = course.data?.history.ranges.map((r) => r.movement) ?? [];
  const here = state.ranges.map((r) => r.movement);
  const shown = all.filter((m) =>
    only
      ? only.includes(m.movement)
      : joint
        ? jointOf(m.movement) === joint
        : [...(before.length + here.length ? [...before, ...here] : first)].includes(m.movement),
  );
  const joints = [...new Set(all.map((m) => jointOf(m.movement)))];
  const set = (movement: string, side: string, over: Partial<Schemas["Measured"]>) => {
    const old = state.ranges.find((r) => r.movement === movement && r.side === side) ?? {
      movement,
      side,
      tool,
    };
    if (over.active_deg !== undefined && over.active_deg === (moment === "before" ? old.before : old.after))
      return;
    // One number is a reading; of several the core takes the mean.
    const active = over.trials
      ? over.trials.length > 1
        ? { trials: over.trials, active_deg: undefined }
        : { trials: undefined, active_deg: over.trials[0] }
      : over.active_deg !== undefined
        ? { trials: undefined }
        : {};
    const reading =
      moment === "before"
        ? measured(old, { tool, ...over, ...active })
        : { movement, side, moment, tool: old.tool ?? tool, ...over, ...active };
    const { movement: _m, side: _s, moment: _t, tool: _o, ...values } = reading;
    if (Object.values(values).every((v) => v === undefined || v === "")) return;
    write("range-measured", reading);
  };
  const trialsOf = (movement: string, side: string) => {
    const r = state.ranges.find((x) => x.movement === movement && x.side === side);
    const single = moment === "before" ? r?.before : r?.after;
    return (moment === "before" ? r?.trials : r?.after_trials) ?? (single === undefined ? [] : [single]);
  };
  const trial = (movement: string, side: string, i: number, v: number | undefined) => {
    const next: (number | undefined)[] = [...trialsOf(movement, side)];
    next[i] = v;
    set(movement, side, { trials: next.filter((x) => x !== undefined) });
  };
  // The close-out repeats as many readings as there were before.
  const wanted = (movement: string, side: string, n: number) =>
    moment === "after"
      ? (state.ranges.find((r) => r.movement === movement && r.side === side)?.trials?.length ?? 1)
      : n;
  const slots = (n: number): Slot[] =>
    shown.flatMap((m) =>
      [0, 1, 2].flatMap((i) =>
        m.sides
          .filter((s) => i < wanted(m.movement, s, n) && trialsOf(m.movement, s)[i] === undefined)
          .map((side) => ({ movement: m.movement, side, trial: i, of: wanted(m.movement, side, n) })),
      ),
    );
  return (
    <>
      <h2>
        {moment === "before"
          ? "Range before treatment"
          : `Range again, the same way${state.ranges.some((r) => r.tool) ? `: ${[...new Set(state.ranges.map((r) => r.tool).filter(Boolean))].join(", ")}` : ""}`}
      </h2>
      {!only && (
        <Choice
          quiet
          label="Joint"
          value={joint ?? "as before"}
          options={["as before", ...joints]}
          onChoose={(j) => setJoint(j === "as before" ? undefined : j)}
          describe={(j) =>
            j === "as before"
              ? before.length
                ? "as before"
                : "usual"
              : (jointNames[j] ?? sentence(plain(j)))
          }
        />
      )}
      <ByInstrument
        core={core}
        slots={slots}
        ask={moment === "before"}
        tool={tool}
        onTool={setTool}
        onTaken={(s, degrees) => trial(s.movement, s.side, s.trial, degrees)}
      />
      <Grid>
        {shown.map((m) => {
          const read = (side: string) =>
            state.ranges.find((r) => r.movement === m.movement && r.side === side);
          const past = (side: string) =>
            course.data?.history.ranges.find((r) => r.movement === m.movement && r.side === side);
          const hands: Hand[] = m.sides.map((side) => ({
            // sides come from the core
            side: side as Hand["side"],
            value: read(side)?.before,
            after: read(side)?.after,
            ghosts: past(side)
              ?.visits.filter((v) => v.visit !== open.visit.id)
              .slice(-4)
              .flatMap((v) => (v.before === undefined ? [] : [v.before])),
          }));
          const flags = m.sides.flatMap((s) => {
            const r = read(s);
            if (moment === "after" && r?.change)
              return [
                `${s === "midline" ? "" : `${s}: `}${r.change.delta > 0 ? "+" : ""}${Math.round(r.change.delta)}° ${r.change.text}`,
              ];
            if (r?.before === undefined) return [];
            const other = s === "midline" ? undefined : read(s === "left" ? "right" : "left")?.before;
            const f = core.range(m.movement, r.before, other, open.client.age);
            return f.flagged ? [`${s === "midline" ? "" : `${s}: `}${f.reason}`] : [];
          });
          const usual = core.range(m.movement, undefined, undefined, open.client.age);
          const trials = (side: string) => trialsOf(m.movement, side);
          const again = (side: string, i: number, v: number | undefined) => trial(m.movement, side, i, v);
          const most = Math.max(...m.sides.map((s) => read(s)?.trials?.length ?? 1));
          return (
            <Card key={m.movement} style={{ padding: "12px 14px" }} data-movement={m.movement}>
              <h3>{movementName(m.movement)}</h3>
              <Arc
                label={movementName(m.movement)}
                reference={usual.reference}
                flagBelow={usual.flag_below}
                hands={hands}
                onDrag={(side, d) => set(m.movement, side, { active_deg: d })}
              />
              <div className="entry">
                {m.sides.map((s) => (
                  <Num
                    key={s}
                    step={trials(s).length > 1 ? 0.1 : 1}
                    label={`${s === "midline" ? "Degrees" : s === "left" ? "Left" : "Right"}`}
                    unit={m.movement === "jaw.opening" ? "mm" : "°"}
                    value={moment === "before" ? read(s)?.before : read(s)?.after}
                    min={-90}
                    max={180}
                    onCommit={(v) => v !== undefined && set(m.movement, s, { active_deg: v })}
                  />
                ))}
              </div>
              <p className="flag">{flags.join(" · ")}</p>
              <details open={moment === "after" && most > 1}>
                <summary className="quiet" style={{ cursor: "pointer", fontSize: 13.5 }}>
                  {moment === "before"
                    ? "More readings, passive, pain, end feel"
                    : most > 1
                      ? `The mean of ${most} readings, as before`
                      : "More readings"}
                </summary>
                {m.sides.map((s) => (
                  <div key={s} style={{ display: "grid", gap: 6, marginTop: 8 }}>
                    {s !== "midline" && <b style={{ fontSize: 13.5 }}>{sentence(s)}</b>}
                    <div className="entry three">
                      {["1st", "2nd", "3rd"].map((n, i) => (
                        <Num
                          key={n}
                          label={n}
                          value={trials(s)[i]}
                          min={-90}
                          max={180}
                          onCommit={(v) => again(s, i, v)}
                        />
                      ))}
                    </div>
                    {moment === "before" && (
                      <>
                        <div className="entry">
                          <Num
                            label="Passive"
                            unit="°"
                            value={read(s)?.passive}
                            min={-90}
                            max={180}
                            onCommit={(v) => set(m.movement, s, { passive_deg: v })}
                          />
                          <Num
                            label="Pain"
                            unit="0–10"
                            value={read(s)?.before_pain}
                            min={0}
                            max={10}
                            step={0.5}
                            onCommit={(v) => set(m.movement, s, { pain_nprs: v })}
                          />
                        </div>
                        <Where
                          at={read(s)}
                          placing={placing}
                          onOff={(r) => write("range-measured", measured(r, { felt_region: undefined }))}
                        />
                        <Choice
                          quiet
                          label={`Felt, ${s}`}
                          value={read(s)?.felt || undefined}
                          options={["pull", "pinch", "pain"] as const}
                          onChoose={(felt) => set(m.movement, s, { felt })}
                        />
                        <Choice
                          quiet
                          label={`End feel, ${s}`}
                          value={read(s)?.end_feel || undefined}
                          options={["soft", "firm", "hard", "empty", "springy"] as const}
                          onChoose={(v) => set(m.movement, s, { end_feel: v })}
                        />
                      </>
                    )}
                  </div>
                ))}
              </details>
            </Card>
          );
        })}
      </Grid>
    </>
  );
}
