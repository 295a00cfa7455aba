// One gauge: how it is taken, its numbers on each side, and what they say.
import type { Schemas } from "../../../api/client";
import { Choice, Num } from "../../../parts/controls";
import { Length } from "../../../parts/Length";
import { Columns, Said } from "../../../parts/layout";
import { sentence } from "../../../parts/words";
import { readingWords, useUnitPreferences } from "../../../parts/unitPreferences";
import type { StepProps } from "../StepProps";

interface Props extends StepProps {
  g: Schemas["GaugeInfo"];
  moment: "before" | "after";
}
type Read = (side: string) => Schemas["GaugePair"] | undefined;

/** The core lists no gauge that it would not read. */
const idOf = (g: Schemas["GaugeInfo"]) => g.id as Schemas["GaugeRead"]["gauge"];

const withSide = (side: string, text: string) => (side === "midline" ? text : `${side}: ${text}`);

export function GaugeRow({ g, visit, moment }: Props) {
  const { state, open } = visit;
  const w = useUnitPreferences();
  const read: Read = (side) => state.gauges.find((x) => x.gauge === g.id && x.side === side);
  const last = open.earlier_gauges
    .filter((x) => x.gauge === g.id && x.before !== undefined)
    .map((x) => `${x.side === "midline" ? "" : `${x.side} `}${readingWords(x.before ?? 0, g.unit ?? "", w)}`)
    .join(", ");
  return (
    <Columns $cols="minmax(0, 1fr) auto" $gap={1} $align="end" data-gauge={g.id}>
      <span>
        <b>{g.name}</b>
        {g.usual ? <span className="quiet"> · usual {g.usual}</span> : ""}
        <br />
        <span className="quiet small">
          {g.how}
          {last ? ` Last time ${last}.` : ""}
        </span>
      </span>
      {g.unit ? (
        <Numbers g={g} visit={visit} moment={moment} read={read} />
      ) : (
        <Kind g={g} visit={visit} moment={moment} read={read} />
      )}
      <Says g={g} moment={moment} read={read} />
    </Columns>
  );
}

function Numbers({ g, visit, moment, read }: Props & { read: Read }) {
  return (
    <Columns $cols={`repeat(${g.sides.length}, 92px)`}>
      {g.sides.map((side) => {
        const now = moment === "before" ? read(side)?.before : read(side)?.after;
        const field = {
          label: side === "midline" ? "Distance" : sentence(side),
          value: now,
          min: g.min,
          max: g.max,
          onCommit: (value: number | undefined) => {
            if (value !== undefined && value !== now)
              visit.write("gauge-read", { gauge: idOf(g), side, value, moment });
          },
        };
        if (g.unit === "cm") return <Length key={side} {...field} />;
        return <Num key={side} {...field} unit={g.unit} step={1} />;
      })}
    </Columns>
  );
}

function Kind({ g, visit, moment, read }: Props & { read: Read }) {
  const r = read("midline");
  const kinds = ["diaphragmatic", "apical"] as const;
  const now = moment === "before" ? r?.kind : r?.after_kind;
  return (
    <Choice
      quiet
      label={g.name}
      value={kinds.find((k) => k === now)}
      options={kinds}
      describe={(k) => (k === "apical" ? "chest first" : "belly first")}
      onChoose={(kind) => visit.write("gauge-read", { gauge: idOf(g), side: "midline", kind, moment })}
    />
  );
}

/** What is flagged before, and what changed after. */
function Says({ g, moment, read }: Pick<Props, "g" | "moment"> & { read: Read }) {
  const w = useUnitPreferences();
  if (moment === "before") {
    const flags = g.sides.flatMap((s) => {
      const flag = read(s)?.flag;
      return flag ? [withSide(s, flag)] : [];
    });
    if (flags.length === 0) return null;
    return (
      <Said $wide $small $tone="warn">
        {flags.join(" · ")} ({g.source})
      </Said>
    );
  }
  return g.sides.map((s) => {
    const r = read(s);
    return r?.before === undefined || r.after === undefined ? null : (
      <Said key={s} className="quiet num" $wide $small>
        {withSide(s, [r.before, r.after].map((v) => readingWords(v, g.unit ?? "", w)).join(" → "))}
      </Said>
    );
  });
}
