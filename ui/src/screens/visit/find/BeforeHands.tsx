// What is asked before hands are on: consent to the visit and to the sensitive areas of
// the place, and the first two groups of the screening, a touch each. It can be put off
// with a reason; a hold stays refused until then.
import type { Schemas } from "../../../api/client";
import { Card, Choice } from "../../../parts/controls";
import { AskConsent } from "../Consent";
import { areaName } from "../consentWords";
import { Group } from "../screening/Group";
import { groups } from "../screening/outcomes";
import { useAnswers } from "../screening/useAnswers";
import type { StepProps } from "../StepProps";

type Area = Schemas["ConsentRecorded"]["area"];

/** Why it may wait; what is written is the reason itself. */
const reasons = ["Cannot answer just now", "Asked on paper", "Looking again at a known point"];

/** What is still to be asked before a hand is at a place, and whether that was put off;
 * a sensitive area that was not open then is asked for anew. */
export function useBeforeHands({ visit }: StepProps, consent: readonly Area[] = []) {
  const { state, core } = visit;
  const answers = useAnswers(visit);
  const questions = core.lists.questions;
  const first = groups
    .slice(0, 2)
    .map((g) => ({ ...g, questions: questions.filter((q) => q.outcome === g.outcome) }))
    .filter((g) => g.questions.some((q) => answers.missing(q.id)));
  const areas = (["visit", ...consent] as const).filter(
    (a) => !state.consents.some((c) => c.area === a && c.given),
  );
  const asked = first.length === 0 && areas.length === 0;
  const put = state.put_off;
  const later = !!put && areas.every((a) => a === "visit" || put.areas?.includes(a));
  return { areas, first, answers, asked, ready: asked || later };
}

export function BeforeHands({ visit, consent }: StepProps & { consent?: readonly Area[] }) {
  const { areas, first, answers } = useBeforeHands({ visit }, consent);
  const says = (area: Area) =>
    area === "visit"
      ? "Say what you will do, and that a word stops it at any time."
      : `${areaName(area)}: a consent of its own, with a chaperone offered.`;
  return (
    <>
      <Card data-before-hands>
        <h2>Before hands are on</h2>
        {areas.map((a) => (
          <AskConsent key={a} visit={visit} area={a} why={says(a)} />
        ))}
        <Choice
          label="Ask later, for a reason that is kept; no hold begins before it is asked"
          value={undefined}
          options={reasons}
          onChoose={(reason) =>
            visit.write("asking-put-off", {
              reason: `${reason}.`,
              areas: areas.filter((a) => a !== "visit"),
            })
          }
        />
      </Card>
      {first.map((g) => (
        <Group
          key={g.outcome}
          name={g.name}
          outcome={g.outcome}
          questions={g.questions}
          answers={answers}
          setPlacing={() => undefined}
        />
      ))}
    </>
  );
}
