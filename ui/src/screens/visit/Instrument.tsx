// What the inclinometer shows, large enough for arm's length, with a bar that
// fills while it lies steady.
import { styled } from "styled-components";
import type { Inclinometer } from "../../core/useInclinometer";
import { Said } from "../../parts/layout";
import { lengthWords, useUnitPreferences } from "../../parts/unitPreferences";

const Box = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 18px;
  align-items: center;
  background: var(--accent-soft);
  border-radius: 12px;
  padding: 10px 16px;
  .big {
    font: 640 40px/1.1 var(--text);
    font-variant-numeric: tabular-nums;
    min-width: 128px;
  }
  .big small {
    font-size: 18px;
    font-weight: 540;
    color: var(--ink-soft);
    margin-left: 8px;
  }
  .bar {
    height: 10px;
    border-radius: 5px;
    background: var(--card);
    overflow: hidden;
    margin-top: 6px;
  }
  .bar i {
    display: block;
    height: 100%;
    background: var(--accent);
  }
`;

export function Readout({ live, next }: { live: Inclinometer; next: string }) {
  const w = useUnitPreferences();
  if (live.error)
    return (
      <Said role="alert" $tone="stop">
        {live.error}
      </Said>
    );
  return (
    <Box data-instrument>
      <span className="big" aria-hidden>
        {live.deg === undefined ? "–" : `${live.deg.toFixed(1)}°`}
        {live.distance_cm !== undefined && <small>{lengthWords(live.distance_cm, w)}</small>}
      </span>
      <span>
        <b aria-live="polite">{next}</b>
        <div className="bar" role="img" aria-label={live.share > 0 ? "Becoming steady" : "Not steady yet"}>
          <i style={{ width: `${live.share * 100}%` }} />
        </div>
      </span>
    </Box>
  );
}
