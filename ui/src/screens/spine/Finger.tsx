import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, Num, Trouble } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { usualFingerCM } from "./levels";

const Narrow = styled.div`
  width: 84px;
`;

/** The therapist's own finger-width, asked once. */
export function Finger({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [cm, setCM] = useState<number | undefined>(me.finger_cm ?? usualFingerCM);
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
          : "Asked once: lay the index finger on a ruler, at its middle joint. Until then 1.8 cm."}
      </p>
      {error && <Trouble error={error} />}
      <Row $wrap $align="end">
        <Choice label="cm" value={cm} options={[1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.1]} onChoose={setCM} />
        <Narrow>
          <Num label="other" unit="cm" value={cm} min={1} max={3} step={0.1} onCommit={setCM} />
        </Narrow>
        <Button $kind="main" isDisabled={cm === undefined || cm === me.finger_cm} onPress={keep}>
          Keep
        </Button>
      </Row>
    </Card>
  );
}
