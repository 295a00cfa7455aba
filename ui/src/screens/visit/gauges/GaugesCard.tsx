// Toe-touch, lunge, leg raise and breath; after treatment those taken before.
import { Card } from "../../../parts/controls";
import type { StepProps } from "../StepProps";
import { FirstRib } from "./FirstRib";
import { GaugeRow } from "./GaugeRow";

export function GaugesCard({ visit, moment }: StepProps & { moment: "before" | "after" }) {
  const { core, state } = visit;
  const list = core.lists.gauges;
  const taken = (id: string) =>
    state.gauges.some((x) => x.gauge === id && (x.before !== undefined || x.kind));
  const shown = list.filter((g) => moment === "before" || taken(g.id));
  if (shown.length === 0) return null;
  return (
    <Card $gap={3} data-gauges={moment}>
      <h2>{moment === "before" ? "Reach, lunge, leg and breath" : "Reach, lunge, leg and breath again"}</h2>
      {shown.map((g) => (
        <GaugeRow key={g.id} g={g} visit={visit} moment={moment} />
      ))}
      {moment === "before" && <FirstRib visit={visit} />}
    </Card>
  );
}
