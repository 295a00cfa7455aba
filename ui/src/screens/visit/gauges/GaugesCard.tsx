// Toe-touch, lunge, leg raise and breath; after treatment those that are asked for again.
import { Card } from "../../../parts/controls";
import type { StepProps } from "../StepProps";
import { FirstRib } from "./FirstRib";
import { GaugeRow } from "./GaugeRow";

interface Props extends StepProps {
  moment: "before" | "after";
  only?: string[];
}

export function GaugesCard({ visit, moment, only }: Props) {
  const shown = visit.core.lists.gauges.filter((g) => !only || only.includes(g.id));
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
