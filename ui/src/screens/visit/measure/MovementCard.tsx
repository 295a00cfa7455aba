// One movement: its arc with what is usual and what was, and its numbers.
import type { Schemas } from "../../../api/client";
import { Arc, type Hand } from "../../../charts/Arc";
import { useAsk } from "../../../core/useAsk";
import type { LiveVisit } from "../../../core/useVisit";
import { Card, Disclosed, Num } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { movementName } from "../../../parts/words";
import { MoreReadings } from "./MoreReadings";
import type { Placing } from "./reading";
import { useFlags } from "./useFlags";
import type { Readings } from "./useReadings";

interface Props {
  m: Schemas["Measurable"];
  visit: LiveVisit;
  past: Schemas["RangeHistory"][];
  readings: Readings;
  placing?: Placing;
  /** A reading is begun, by hand. */
  onRead: (side: Schemas["Side"]) => void;
  /** What the client's answers say of it. */
  cautions?: string[];
}

const names = { midline: "Degrees", left: "Left", right: "Right" };
const ofSide = (side: Schemas["Side"], text: string) => (side === "midline" ? text : `${side}: ${text}`);

export function MovementCard({ m, visit, past, readings, placing, onRead, cautions }: Props) {
  const { core, open } = visit;
  const { moment, of, trials, set } = readings;
  const at = (side: Schemas["Side"]) => ({ movement: m.movement, side });
  const usual = useAsk(core, "range", { movement: m.movement, age: open.client.age });
  const flagged = useFlags(visit, m.movement, m.sides, (side) => of(at(side))?.before);
  const most = Math.max(...m.sides.map((s) => of(at(s))?.trials?.length ?? 1));
  const flags = m.sides.flatMap((s) => said(readings, at(s), flagged?.[s]));
  return (
    <Card $gap={1} data-movement={m.movement} onPointerDown={() => onRead(m.sides[0] ?? "midline")}>
      <h3>{movementName(m.movement)}</h3>
      {cautions && <Said $tone="warn">{cautions.join(" ")}</Said>}
      {usual && (
        <Arc
          label={movementName(m.movement)}
          reference={usual.reference}
          flagBelow={usual.flag_below}
          hands={m.sides.map((side) => handOf(side, of(at(side)), past, open.visit.id))}
          onDrag={(side, d) => set(at(side), { active_deg: d })}
        />
      )}
      <div className="entry">
        {m.sides.map((s) => (
          <div key={s} onFocus={() => onRead(s)}>
            <Num
              step={trials(at(s)).length > 1 ? 0.1 : 1}
              label={names[s]}
              unit={m.movement === "jaw.opening" ? "mm" : "°"}
              value={moment === "before" ? of(at(s))?.before : of(at(s))?.after}
              min={-90}
              max={180}
              onCommit={(v) => v !== undefined && set(at(s), { active_deg: v })}
            />
          </div>
        ))}
      </div>
      <p className="flag">{flags.join(" · ")}</p>
      <Disclosed open={moment === "after" && most > 1} summary={more(moment, most)}>
        {m.sides.map((s) => (
          <MoreReadings key={s} at={at(s)} readings={readings} placing={placing} />
        ))}
      </Disclosed>
    </Card>
  );
}

function more(moment: Readings["moment"], most: number) {
  if (moment === "before") return "Passive, pain, end feel, repeats";
  return most > 1 ? `The mean of ${most} readings, as before` : "More readings";
}

/** A side of the arc, with up to four earlier visits as ghosts. */
function handOf(
  side: Schemas["Side"],
  read: Schemas["Range"] | undefined,
  past: Schemas["RangeHistory"][],
  visit: string,
): Hand {
  const earlier = past.find((r) => r.side === side)?.visits.filter((v) => v.visit !== visit) ?? [];
  return {
    side,
    value: read?.before,
    after: read?.after,
    ghosts: earlier.slice(-4).flatMap((v) => (v.before === undefined ? [] : [v.before])),
  };
}

/** What is to be said of a side: that it is short, or what became of it. */
function said(
  { moment, of }: Readings,
  at: Parameters<Readings["of"]>[0],
  flag: Schemas["RangeFlag"] | undefined,
) {
  const r = of(at);
  if (moment === "after" && r?.change) {
    const sign = r.change.delta > 0 ? "+" : "";
    return [ofSide(at.side, `${sign}${Math.round(r.change.delta)}° ${r.change.text}`)];
  }
  return flag?.flagged ? [ofSide(at.side, flag.reason ?? "")] : [];
}
