// The course of a movement, both sides on one scale, over its usual range.
import type { Schemas } from "../../api/client";
import { type TimeAxis, TimeRow } from "../../charts/TimeRow";
import { movementName, sentence } from "../../parts/words";
import { Changed } from "./RowWords";
import { rangeSignals } from "./verdict";

interface Props extends TimeAxis {
  movement: string;
  ranges: Schemas["RangeHistory"][];
  treated: string[];
}

export function RangeRow({ movement, ranges, treated, ...shared }: Props) {
  const [first, second] = [
    ranges.find((r) => r.side !== "right") ?? ranges[0],
    ranges.find((r) => r.side === "right"),
  ];
  if (!first) return null;
  const both = second && second !== first ? second : undefined;
  const highest = Math.max(first.reference, ...ranges.flatMap((r) => r.visits.map((v) => v.before ?? 0)));
  return (
    <li data-movement={movement}>
      <div className="what">
        <b>{movementName(movement)}</b>
        {ranges.map((r) => (
          <Changed
            key={r.side}
            c={r.change}
            what={r.side === "midline" ? "Change" : sentence(r.side)}
            signals={rangeSignals}
          />
        ))}
      </div>
      <TimeRow
        label={movementName(movement)}
        readings={first.visits}
        second={both?.visits}
        {...shared}
        min={0}
        max={Math.ceil((highest * 1.1) / 5) * 5}
        band={[first.flag_below, first.reference]}
        unit="°"
        treated={treated}
        color="var(--left)"
      />
    </li>
  );
}
