// Degrees of the movement that is lengthened: before, and after each round; by
// them the coach sees when a round gains too little. The inclinometer reads before the hold and
// while it is lengthened; at any other time only when it is asked to.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { useInclinometer, useInclinometerAddress } from "../../core/useInclinometer";
import { Key, Num } from "../../parts/controls";
import { phone } from "../../theme";
import { play } from "./tones";
import type { Act } from "./useHold";

const Box = styled.div`
  display: grid;
  gap: 8px;
  width: 190px;
  font-size: 19px;
  color: var(--ink-soft);
  b {
    color: var(--ink);
  }
  ${phone} {
    width: 116px;
    font-size: 14px;
  }
`;

/** About as far as a stand-in's arm goes. */
const usualDeg = 60;

/** Protocols that lengthen, and press nothing. */
export const lengthens = (plan?: Schemas["HoldPlan"]) =>
  plan?.steering === "rounds" || (plan?.steering === "movements" && !plan.presses);

/** Phases in which a steady inclinometer means the range. */
const reads: ReadonlySet<string> = new Set(["ready", "lengthen"]);

interface Props {
  core: Core;
  phase: Schemas["Phase"];
  summary: Schemas["Summary"];
  act: Act;
}

export function RangeEntry({ core, phase, summary, act }: Props) {
  const [degrees, setDegrees] = useState<number>();
  const address = useInclinometerAddress();
  const [asked, setAsked] = useState(false);
  const on = asked || reads.has(phase);
  const live = useInclinometer(core, on ? address : undefined, "range", { deg: usualDeg }, (t) => {
    setAsked(false);
    const v = Math.round(Math.abs(t.deg));
    setDegrees(v);
    play("taken");
    act("range", v);
  });
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
      {address && !on && (
        <Key $slim onPress={() => setAsked(true)}>
          Read the inclinometer
        </Key>
      )}
      {on && live.deg !== undefined && (
        <p data-inclinometer>
          {live.share > 0 ? "Becoming steady:" : "Inclinometer"} {Math.round(live.deg)}°
        </p>
      )}
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
