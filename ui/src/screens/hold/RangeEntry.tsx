// Degrees of the movement that is lengthened: before, and after each round; by
// them the coach sees when a round gains too little.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Num } from "../../parts/controls";
import type { Act } from "./useHold";

const Box = styled.div`
  width: 190px;
  font-size: 19px;
  color: var(--ink-soft);
  b {
    color: var(--ink);
  }
`;

/** Schools that lengthen, and press nothing. */
export const lengthens = (plan?: Schemas["HoldPlan"]) =>
  plan?.steering === "rounds" || (plan?.steering === "movements" && !plan.presses);

export function RangeEntry({ summary, act }: { summary: Schemas["Summary"]; act: Act }) {
  const [degrees, setDegrees] = useState<number>();
  const { gain_deg } = summary;
  return (
    <Box data-range>
      <Num
        label="Range now"
        unit="°"
        value={degrees}
        min={-90}
        max={360}
        onCommit={(v) => {
          setDegrees(v);
          if (v !== undefined && v !== degrees) act("range", v);
        }}
      />
      {gain_deg !== undefined && (
        <p>
          <b>
            {gain_deg > 0 ? "+" : ""}
            {Math.round(gain_deg)}°
          </b>{" "}
          since the first
        </p>
      )}
    </Box>
  );
}
