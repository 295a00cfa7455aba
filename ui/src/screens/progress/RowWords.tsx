// What a row says beside its course: what changed, and what was done at a visit.
import type { Schemas } from "../../api/client";
import { Said } from "../../parts/layout";
import { count, listed, plain, sentence } from "../../parts/words";
import { shortDate } from "./time";
import { verdict, withUnit } from "./verdict";

export function Changed({
  c,
  what,
  signals,
}: {
  c?: Schemas["Change"];
  what: string;
  signals?: Record<string, string>;
}) {
  const v = verdict(c, what, signals);
  const trend = c?.trend && `, ${trendWords(c.trend, c.unit)}`;
  return (
    <>
      <div className="change" data-d={v.d} title={v.title}>
        {v.text}
        {trend}
      </div>
      {v.signal && (
        <Said $small $tone={v.tone}>
          {sentence(v.signal)}
        </Said>
      )}
    </>
  );
}

/** "−0.6 a week (−0.9 to −0.2)". */
function trendWords(t: Schemas["Trend"], unit: string) {
  if ([t.per_week, t.low, t.high].every((v) => Math.abs(v) < 0.05)) return "level on the whole";
  const n = (v: number) => withUnit(v, "");
  const range = n(t.low) === n(t.high) ? "" : ` (${n(t.low)} to ${n(t.high)})`;
  return `${withUnit(t.per_week, unit)} a week${range}`;
}

/** What was found and done there at the visit that is looked at, or the last before. */
export function Visited({ v }: { v?: Schemas["PointVisit"] }) {
  if (!v) return null;
  const held = listed(`${Math.round(v.seconds)} s in ${count(v.parts, "part")}`, ...v.protocols.map(plain));
  const facts = listed(
    v.grade !== undefined && `tenderness ${v.grade}`,
    v.ppt_kpa !== undefined && `${Math.round(v.ppt_kpa)} kPa`,
    v.holds > 0 ? held : "not pressed",
    v.result || v.outcome,
  );
  return (
    <Said className="quiet" $small data-visited>
      {shortDate(v.date)}: {facts}
    </Said>
  );
}
