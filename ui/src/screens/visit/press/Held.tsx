import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { clock, count, plain, positionName, sentence, setName } from "../../../parts/words";
import type { StepProps } from "../StepProps";
import { may } from "../../../rights";

/** The protocol, its repeats or stages, and how it ended. */
function whatWasDone({ start, summary: s }: Schemas["Hold"]): string {
  const name = start.plan?.name ?? plain(start.protocol);
  const stages = s.stages.map((x) => `${x.start_score}→${x.end_score}`).join(", ");
  return [
    name,
    stages ? count(s.stages.length, "stage") + ` (${stages})` : s.reps ? count(s.reps, "repeat") : "",
    s.gain_deg !== undefined ? `${Math.round(s.gain_deg)}° gained` : "",
    s.ended && ended[s.ended],
  ]
    .filter(Boolean)
    .join(" · ");
}

const ended: Partial<Record<Schemas["EndReason"], string>> = {
  borne: "borne",
  softened: "it softened",
  cap: "time used",
  silence: "no answer",
  eased: "too much",
  "no-change": "no change",
  "not-tender": "not tender enough",
  "let-go": "let go early",
};

/** What a hold came to, and what is known beside it. */
export function Held({ hold: h, visit, me }: StepProps & { hold: Schemas["Hold"]; me: Schemas["Me"] }) {
  const toSign = may(me, "hold-countersigned") && h.under && !h.countersigned;
  const how = [
    h.contact && plain(h.contact),
    h.position && positionName(h.position),
    h.muscle_set && `on ${setName(h.muscle_set)}`,
  ].filter(Boolean);
  return (
    <div data-hold={h.status}>
      <p className="num">
        {sentence(h.result)} · {h.summary.pressure_s > 0 && `${clock(h.summary.pressure_s)} pressed · `}
        {whatWasDone(h)}
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
