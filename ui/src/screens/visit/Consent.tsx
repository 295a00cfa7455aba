// Consent: to the visit, and to each sensitive area with a chaperone offered.
// One touch each; what was agreed to can be withdrawn at any time.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button, Card, Choice } from "../../parts/controls";
import { sentence } from "../../parts/words";
import { Fill, Row, Said, Stack } from "../../parts/layout";
import { areaName } from "./consentWords";
import type { StepProps } from "./StepProps";

type Consent = Schemas["ConsentRecorded"];
type Area = Consent["area"];
const areas: Area[] = ["groin", "buttock", "chest", "abdomen", "axilla", "coccyx"];
const answers = ["declined", "present", "no"] as const;
type Answer = (typeof answers)[number];
const said: Record<Answer, string> = {
  declined: "Agrees, no chaperone wanted",
  present: "Yes, chaperone here",
  no: "No",
};

const AreaRow = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  padding: 5px 0;
  border-top: 1px solid var(--line-soft);
  &:first-of-type {
    border-top: 0;
  }
`;

function useConsent({ visit }: StepProps) {
  const { state, write } = visit;
  const minor = state.screening.rules.some((r) => r.id === "minor");
  const of = (area: Area) => state.consents.find((c) => c.area === area);
  const say = (area: Area, given: boolean, chaperone?: Consent["chaperone"]) =>
    write("consent-recorded", {
      area,
      given,
      by: minor ? "guardian" : "client",
      ...(given && chaperone ? { chaperone } : {}),
    });
  return { minor, of, say };
}

export function ConsentCard({ visit }: StepProps) {
  const { minor, of, say } = useConsent({ visit });
  const whole = of("visit");
  const [all, setAll] = useState(false);
  const known = areas.filter((a) => of(a));
  const shown = all ? areas : known;
  return (
    <Card data-consent>
      <Row $gap={3} $wrap>
        <Fill as="h2">Consent</Fill>
        <Choice
          quiet
          label={
            minor ? "The guardian agrees to today's treatment" : "The client agrees to today's treatment"
          }
          value={whole && (whole.given ? "agreed" : "not agreed")}
          options={["agreed", "not agreed"]}
          describe={sentence}
          onChoose={(v) => say("visit", v === "agreed")}
        />
      </Row>
      <Row $gap={4}>
        <Said className="quiet" $fill>
          {minor
            ? `Under age: the guardian agrees (${visit.open.client.guardian || "none is on the record yet"}). `
            : ""}
          Say what you will do, and that a word stops it at any time. Sensitive areas are asked about one by
          one.
        </Said>
        {known.length < areas.length && (
          <Button aria-expanded={all} onPress={() => setAll(!all)}>
            {all ? "Hide areas not asked" : "Sensitive areas"}
          </Button>
        )}
      </Row>
      {shown.length > 0 && (
        <div>
          {shown.map((a) => {
            const c = of(a);
            const value: Answer | undefined =
              c && (c.given ? (c.chaperone === "present" ? "present" : "declined") : "no");
            return (
              <AreaRow key={a}>
                <span>{areaName(a)}</span>
                <Choice
                  quiet
                  label={`Consent: ${areaName(a)}`}
                  value={value}
                  options={answers}
                  describe={(x) => said[x]}
                  onChoose={(x) => say(a, x !== "no", x === "no" ? undefined : x)}
                />
              </AreaRow>
            );
          })}
        </div>
      )}
    </Card>
  );
}

/** The one consent that still keeps a hold from beginning, asked where it is
 * missed. */
export function AskConsent({ visit, area, why }: StepProps & { area: Area; why: string }) {
  const { minor, say } = useConsent({ visit });
  const who = minor ? "The guardian agrees" : "The client agrees";
  return (
    <Stack className="caution" role="note" data-ask={area} $gap={1}>
      <span>{why}</span>
      <Row $wrap>
        {area === "visit" ? (
          <Button onPress={() => say(area, true)}>{who}</Button>
        ) : (
          <>
            <Button onPress={() => say(area, true, "declined")}>{who}, no chaperone wanted</Button>
            <Button onPress={() => say(area, true, "present")}>{who}, chaperone here</Button>
          </>
        )}
      </Row>
    </Stack>
  );
}
