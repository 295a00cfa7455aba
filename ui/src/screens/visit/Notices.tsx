// What must not be overlooked, above every step: an unfinished hold, what the
// screening comes to, cautions, conflicts, and what was kept aside.
import type { Schemas } from "../../api/client";
import { useNavigate } from "react-router";
import { Button } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { plain, time } from "../../parts/words";
import { useBeforeHands } from "./find/BeforeHands";
import { Banner } from "./screening/Banner";
import type { StepProps } from "./StepProps";

export function Notices({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const { open, state, write } = visit;
  const go = useNavigate();
  const { asked } = useBeforeHands({ visit });
  const live = state.holds.find((h) => h.status === "live");
  return (
    <>
      {live && (
        <Row className="caution" role="alert" $gap={3}>
          <Fill>A hold is not finished.</Fill>
          <Button
            onPress={() =>
              write("hold-ended", {
                hold: live.id,
                outcome: live.summary.outcome,
                pressure_ms: Math.round(live.summary.pressure_s * 1000),
                parts: live.summary.parts?.length ?? live.summary.stages.length,
              })
            }
          >
            End at the last entry
          </Button>
          <Button $kind="main" onPress={() => go(`/visits/${open.visit.id}/hold/${live.id}`)}>
            Resume
          </Button>
        </Row>
      )}
      <LeftSequence visit={visit} />
      {state.screen_again && (
        <div className="caution" role="alert">
          The client felt unwell: the neck is closed for today. Let them sit up slowly, stay with them, and
          ask the screening again before anything else is pressed. If it does not pass: {me.emergency_number}.
        </div>
      )}
      {state.put_off && !asked && (
        <Row className="caution" role="note" $gap={3}>
          <Fill>
            Hands were on before consent and screening were asked for: {state.put_off.text} No hold begins
            before they are.
          </Fill>
          <Button onPress={() => go(`/visits/${open.visit.id}?step=screen`)}>Ask now</Button>
        </Row>
      )}
      <Banner visit={visit} emergency={me.emergency_number} />
      {open.client.cautions?.map((c) => (
        <div key={c} className="caution" role="note">
          {c}
        </div>
      ))}
      {state.conflicts.map((c) => (
        <div key={c.key} className="caution" role="alert">
          {c.text} The later one is shown; set it again to settle it.
        </div>
      ))}
      {state.late && (
        <div className="caution" role="note" data-late>
          Came in after the visit was closed:{" "}
          {state.late
            .map((l) => `${plain(l.type)}, ${time(new Date(l.at_ms).toISOString(), me.time_zone)}`)
            .join(" · ")}
          .
        </div>
      )}
      {state.aside.map((a) => (
        <div key={a.event} className="caution" role="note">
          Kept aside ({a.type.replaceAll("-", " ")}): {a.reason}
        </div>
      ))}
      {state.holds
        .filter((h) => h.status === "aside")
        .map((h) => (
          <div key={h.id} className="caution" role="note">
            A hold is kept aside and counts nowhere: {h.why}
          </div>
        ))}
    </>
  );
}

/** A sequence that was left in a step can be rejoined from everywhere. */
function LeftSequence({ visit: { state, open } }: StepProps) {
  const go = useNavigate();
  const left = state.runs?.findLast((r) => r.at > 0 && !r.steps[r.at - 1]?.outcome);
  if (!left) return null;
  return (
    <Row className="caution" role="note" $gap={3} data-left-sequence>
      <Fill>
        {left.name} was left at step {left.at} of {left.steps.length}.
      </Fill>
      <Button $kind="main" onPress={() => go(`/visits/${open.visit.id}/sequence/${left.run}`)}>
        Rejoin it
      </Button>
    </Row>
  );
}
