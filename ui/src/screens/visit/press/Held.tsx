import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { clock, count, plain, positionName, sentence } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { licensed } from "./roles";

/** What a hold came to, and what is known beside it. */
export function Held({ hold: h, visit, me }: StepProps & { hold: Schemas["Hold"]; me: Schemas["Me"] }) {
  const toSign = licensed(me) && h.under && !h.countersigned;
  const how = [
    h.contact && plain(h.contact),
    h.position && positionName(h.position),
    h.muscle_set && `on ${h.muscle_set}`,
  ].filter(Boolean);
  return (
    <div data-hold={h.status}>
      <p className="num">
        {sentence(h.summary.outcome)} · {clock(h.summary.pressure_s)} pressed ·{" "}
        {count(h.summary.stages.length, "stage")}
        {h.summary.stages.length > 0 &&
          ` (${h.summary.stages.map((s) => `${s.start_score}→${s.end_score}`).join(", ")})`}
        {h.status === "live" ? " · not finished" : ""}
        {how.length > 0 && <span className="quiet"> · {how.join(", ")}</span>}
      </p>
      {h.remarks.map((r) => (
        <p key={r} className="quiet" data-remark>
          {r}
        </p>
      ))}
      {toSign && (
        <Button onPress={() => visit.write("hold-countersigned", { hold: h.id })}>
          Countersign this hold
        </Button>
      )}
    </div>
  );
}
