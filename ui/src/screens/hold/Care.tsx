// What to be careful of at this site, and what worked here before.
import type { Schemas } from "../../api/client";
import { useGuide } from "../../core/useGuide";
import type { LiveVisit } from "../../core/useVisit";
import { plain, unbroken } from "../../parts/words";
import { heightOf } from "../../core/height";

export function Care({ visit, hold }: { visit: LiveVisit; hold: Schemas["Hold"] }) {
  const { core, state, open } = visit;
  const point = state.points.find((p) => p.point === hold.point);
  const height = heightOf(open.context);
  const guide = useGuide(core, point, height);
  const near = guide?.near.find((n) => (n.distance_cm ?? 0) < 5);
  const caution = near ? `${near.name}: ${near.text}` : guide?.cautions[0];
  const before = open.earlier.find((e) => e.identity === point?.identity)?.worked;
  return (
    <div className="care" data-care>
      {caution && (
        <>
          <b>Caution.</b> {unbroken(caution)}{" "}
        </>
      )}
      {before && `Helped last time: ${plain(before)}.`}
    </div>
  );
}
