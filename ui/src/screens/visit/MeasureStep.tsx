// Range of motion as arcs; the same screen before and after.
import { useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { api, must } from "../../api/client";
import { Arc, type Hand } from "../../charts/Arc";
import { Card, Num } from "../../parts/controls";
import { movementName } from "../../parts/words";
import type { StepProps } from "./Visit";

/** The movements charted in this version; what is usual comes from the core. */
const movements = [
  { id: "cervical.rotation", sides: ["left", "right"] },
  { id: "cervical.lateral-flexion", sides: ["left", "right"] },
  { id: "lumbar.flexion", sides: ["midline"] },
  { id: "lumbar.lateral-flexion", sides: ["left", "right"] },
  { id: "ankle.dorsiflexion-knee-straight", sides: ["left", "right"] },
  { id: "ankle.dorsiflexion-knee-bent", sides: ["left", "right"] },
] as const;

const Grid = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(270px, 1fr)); gap: 12px;
  .entry { display: grid; grid-template-columns: 1fr 1fr; gap: 10px; }
  h3 { font-size: 15px; } .flag { color: var(--warn); font-size: 13px; min-height: 20px; }
`;

export function MeasureStep({ visit, moment, only }: StepProps & { moment: "before" | "after"; only?: string[] }) {
  const { open, state, core, write } = visit;
  const course = useQuery({ queryKey: ["course", open.client.id], queryFn: () => must(api.GET("/api/clients/{id}", { params: { path: { id: open.client.id } } })) });
  const set = (movement: string, side: string, v: number | undefined) => {
    if (v === undefined) return;
    const old = state.ranges.find((r) => r.movement === movement && r.side === side);
    if ((moment === "before" ? old?.before : old?.after) === v) return;
    write("range-measured", { movement, side, moment, active_deg: v, tool: "inclinometer" });
  };
  return (
    <>
      <h2>{moment === "before" ? "Range before treatment" : "Range again, the same way"}</h2>
      <Grid>
        {movements.filter((m) => !only || only.includes(m.id)).map((m) => {
          const read = (side: string) => state.ranges.find((r) => r.movement === m.id && r.side === side);
          const past = (side: string) => course.data?.history.ranges.find((r) => r.movement === m.id && r.side === side);
          const hands: Hand[] = m.sides.map((side) => ({
            side, value: read(side)?.before, after: read(side)?.after,
            ghosts: past(side)?.visits.filter((v) => v.visit !== open.visit.id).slice(-4).flatMap((v) => (v.before === undefined ? [] : [v.before])),
          }));
          const flags = m.sides.flatMap((s) => {
            const r = read(s);
            if (moment === "after" && r?.change) return [`${s === "midline" ? "" : `${s}: `}${r.change.delta > 0 ? "+" : ""}${Math.round(r.change.delta)}° ${r.change.text}`];
            if (r?.before === undefined) return [];
            const other = s === "midline" ? undefined : read(s === "left" ? "right" : "left")?.before;
            const f = core.range(m.id, r.before, other, open.client.age);
            return f.flagged ? [`${s === "midline" ? "" : `${s}: `}${f.reason}`] : [];
          });
          const usual = core.range(m.id, undefined, undefined, open.client.age);
          return (
            <Card key={m.id} style={{ padding: "12px 14px" }} data-movement={m.id}>
              <h3>{movementName(m.id)}</h3>
              <Arc label={movementName(m.id)} reference={usual.reference} flagBelow={usual.flag_below} hands={hands} onDrag={(side, d) => set(m.id, side, d)} />
              <div className="entry">
                {m.sides.map((s) => (
                  <Num key={s} label={`${s === "midline" ? "Degrees" : s === "left" ? "Left" : "Right"}`} unit="°" value={moment === "before" ? read(s)?.before : read(s)?.after} min={-90} max={180} onCommit={(v) => set(m.id, s, v)} />
                ))}
              </div>
              <p className="flag">{flags.join(" · ")}</p>
            </Card>
          );
        })}
      </Grid>
    </>
  );
}
