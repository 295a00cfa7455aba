import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, Num, ErrorPanel } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { fingerCM, fingerIn, lengthUnit, useUnitPreferences } from "../../parts/unitPreferences";
import { usualFingerCM } from "./levels";

const Narrow = styled.div`
  width: 84px;
`;

const howToMeasure = "Asked once: lay the index finger on a ruler, at its middle joint.";

/** The therapist's own finger-width, asked once. */
export function Finger({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [cm, setCM] = useState<number | undefined>(me.finger_cm ?? usualFingerCM);
  const w = useUnitPreferences();
  const shown = (width: number) => fingerIn(width, w);
  const [error, setError] = useState<Error>();
  const keep = async () => {
    try {
      queries.setQueryData(
        ["me"],
        await must(api.PUT("/api/me/finger", { body: { cm: cm ?? usualFingerCM } })),
      );
      setError(undefined);
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Card>
      <h2>Your finger-width</h2>
      <p className="quiet">
        {me.finger_cm
          ? "Used for every distance that Mokren gives you."
          : `${howToMeasure} Until then ${shown(usualFingerCM)} ${lengthUnit(w)}.`}
      </p>
      {error && <ErrorPanel error={error} />}
      <Row $wrap $align="end">
        <Choice
          label={lengthUnit(w)}
          value={cm}
          options={[1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.1]}
          describe={(width) => String(shown(width))}
          onChoose={setCM}
        />
        <Narrow>
          <Num
            label="other"
            unit={lengthUnit(w)}
            value={cm && shown(cm)}
            min={shown(1)}
            max={shown(3)}
            step={w.units === "imperial" ? 0.01 : 0.1}
            onCommit={(v) => setCM(v && fingerCM(v, w))}
          />
        </Narrow>
        <Button $kind="main" isDisabled={cm === undefined || cm === me.finger_cm} onPress={keep}>
          Keep
        </Button>
      </Row>
    </Card>
  );
}
