// Consent: to the visit, and to each sensitive area with a chaperone offered.
// One touch each; what was agreed to can be withdrawn at any time.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button, Card, Choice } from "../../parts/controls";
import { sentence } from "../../parts/words";
import type { StepProps } from "./Visit";

type Consent = Schemas["Consented"];
type Area = Consent["area"];
const areas: Area[] = ["groin", "buttock", "chest", "abdomen", "axilla", "coccyx"];
const answers = ["declined", "present", "no"] as const;
type Answer = (typeof answers)[number];
const said: Record<Answer, string> = {
  declined: "Yes, chaperone declined",
  present: "Yes, chaperone here",
  no: "No",
};

const Row = styled.div`
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

/** An agreement in words: "agreed, chaperone declined, by the guardian". */
export const consentWords = (c: Consent) =>
  [
    c.given ? "agreed" : "not agreed",
    c.given && c.chaperone && `chaperone ${c.chaperone}`,
    c.by === "guardian" && "by the guardian",
  ]
    .filter(Boolean)
    .join(", ");
export const areaName = (a: Area) =>
  a === "visit" ? "The treatment" : sentence(a === "axilla" ? "armpit" : a);

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
    <Card style={{ display: "grid", gap: 8 }} data-consent>
      <div style={{ display: "flex", gap: 12, alignItems: "center", flexWrap: "wrap" }}>
        <h2 style={{ flex: 1 }}>Consent</h2>
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
      </div>
      <div style={{ display: "flex", gap: 16, alignItems: "center" }}>
        <p className="quiet" style={{ flex: 1 }}>
          {minor
            ? `Under age: the guardian agrees (${visit.open.client.guardian || "none is on the record yet"}). `
            : ""}
          Say what you will do, and that a word stops it at any time. Sensitive areas are asked about one by
          one.
        </p>
        {known.length < areas.length && (
          <Button aria-expanded={all} onPress={() => setAll(!all)}>
            {all ? "Only those asked about" : "Sensitive areas"}
          </Button>
        )}
      </div>
      {shown.length > 0 && (
        <div>
          {shown.map((a) => {
            const c = of(a);
            const value: Answer | undefined =
              c && (c.given ? (c.chaperone === "present" ? "present" : "declined") : "no");
            return (
              <Row key={a}>
                <span>{areaName(a)}</span>
                <Choice
                  quiet
                  label={`Consent: ${areaName(a)}`}
                  value={value}
                  options={answers}
                  describe={(x) => said[x]}
                  onChoose={(x) => say(a, x !== "no", x === "no" ? undefined : x)}
                />
              </Row>
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
    <div className="caution" role="note" style={{ display: "grid", gap: 8 }} data-ask={area}>
      <span>{why}</span>
      <div style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
        {area === "visit" ? (
          <Button onPress={() => say(area, true)}>{who}</Button>
        ) : (
          <>
            <Button onPress={() => say(area, true, "declined")}>{who}, no chaperone wanted</Button>
            <Button onPress={() => say(area, true, "present")}>{who}, chaperone here</Button>
          </>
        )}
      </div>
    </div>
  );
}
