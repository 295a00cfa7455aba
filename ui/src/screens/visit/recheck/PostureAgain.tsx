// Posture readings that were flagged, read again the same way.
import type { Schemas } from "../../../api/client";
import { Card } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { useUnitPreferences } from "../../../parts/unitPreferences";
import { measures, ofSides, valueOf } from "../posture/measures";
import { Reading } from "../posture/Reading";
import type { StepProps } from "../StepProps";

export function PostureAgain({ visit, list }: StepProps & { list: Schemas["ToRecheck"][] }) {
  const w = useUnitPreferences();
  const { posture, posture_after = [] } = visit.state;
  const shown = [...new Set(list.flatMap((x) => (x.measure ? [x.measure] : [])))];
  if (shown.length === 0) return null;
  return (
    <>
      <h2>Posture again</h2>
      {shown.map((id) => {
        const m = measures[id];
        if (!m) return null;
        const read = (of: Schemas["Posture"][]) =>
          of
            .filter((p) => p.measure === id)
            .map((p) => `${ofSides(m) && p.side ? `${p.side} ` : ""}${valueOf(p, w)}`)
            .join("; ");
        const now = read(posture_after);
        return (
          <Card key={id} $gap={3} data-posture-again={id}>
            <h3>{m.name}</h3>
            <Said className="num">
              Before: {read(posture)}
              {now && <b> → now: {now}</b>}
            </Said>
            <Reading visit={visit} measure={id} m={m} moment="after" />
          </Card>
        );
      })}
    </>
  );
}
