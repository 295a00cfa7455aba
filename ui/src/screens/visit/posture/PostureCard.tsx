// Posture readings with the caliper-inclinometer: any two of distance, height
// difference and slope; the core computes the third and judges them.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Card, Pick } from "../../../parts/controls";
import { Bullets } from "../../../parts/layout";
import { plain, sentence } from "../../../parts/words";
import { useUnitPreferences } from "../../../parts/unitPreferences";
import type { StepProps } from "../StepProps";
import { judged, measures, valueOf } from "./measures";
import { Reading } from "./Reading";
import { Thresholds } from "./Thresholds";

const Flagged = styled.li<{ $flagged?: boolean }>`
  color: ${(p) => (p.$flagged ? "var(--warn)" : "inherit")};
`;

export function PostureCard({ visit }: StepProps) {
  const { state } = visit;
  const [measure, setMeasure] = useState<string>();
  const m = measure ? measures[measure] : undefined;
  return (
    <Card $gap={3} data-posture>
      <h2>Posture</h2>
      <Pick
        label="Measure"
        none="Choose a measurement"
        value={measure}
        options={Object.keys(measures)}
        describe={(id) => measures[id]?.name ?? id}
        onPick={setMeasure}
      />
      {m && measure && <Reading key={measure} visit={visit} measure={measure} m={m} />}
      {state.posture.length > 0 && (
        <Bullets>
          {state.posture.map((p, i) => (
            <Read key={p.measure + (p.side ?? "")} p={p} flag={state.posture_flags[i]} />
          ))}
        </Bullets>
      )}
      <Thresholds visit={visit} />
    </Card>
  );
}

function Read({ p, flag }: { p: Schemas["Posture"]; flag?: Schemas["PostureFlag"] }) {
  const written = useUnitPreferences();
  return (
    <Flagged $flagged={flag?.flagged}>
      {measures[p.measure]?.name ?? sentence(plain(p.measure))}
      {p.side ? `, ${p.side}` : ""}: {valueOf(p, written)}
      <span className="quiet">
        {" "}
        · {flag && judged(flag)} ({flag?.source})
      </span>
    </Flagged>
  );
}
