// The force under the hand: where it is in its band, how steady, and where the
// tissue first resisted.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";

const Box = styled.div`
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr);
  gap: 14px;
  align-items: center;
  height: 100%;
  min-width: 190px;
  font-size: 19px;
  color: var(--ink-soft);
  font-variant-numeric: tabular-nums;
  svg {
    height: 100%;
    width: 34px;
  }
  b {
    display: block;
    font-size: 34px;
    line-height: 1.1;
    color: var(--ink);
  }
  b[data-in="false"] {
    color: var(--warn);
  }
`;

const high = 180;
/** Headroom above the band, so that too much shows as too much. */
const room = 1.6;

export function Force({ reading }: { reading: Schemas["PadReading"] }) {
  const { force_n, low_n, high_n, in_band, band_by, cv_percent, resistance } = reading;
  // Beyond the first resistance is where most protocols press.
  const out = band_by === "number" && !in_band;
  const top = Math.max(10, (high_n ?? force_n) * room);
  const y = (n: number) => high - (Math.min(n, top) / top) * high;
  const banded = low_n !== undefined && high_n !== undefined;
  return (
    <Box data-force data-in={in_band}>
      <svg viewBox={`0 0 34 ${high}`} preserveAspectRatio="none" aria-hidden>
        <rect x="4" width="26" height={high} rx="8" fill="var(--line-soft)" />
        {banded && (
          <rect
            x="0"
            width="34"
            y={y(high_n)}
            height={y(low_n) - y(high_n)}
            rx="4"
            fill="var(--accent-soft)"
          />
        )}
        <rect
          x="10"
          width="14"
          y={y(force_n)}
          height={high - y(force_n)}
          rx="5"
          fill={out ? "var(--warn)" : "var(--accent)"}
        />
        {resistance?.found && resistance.force_n !== undefined && (
          <line
            x1="0"
            x2="34"
            y1={y(resistance.force_n)}
            y2={y(resistance.force_n)}
            stroke="var(--ink)"
            strokeWidth="2"
            strokeDasharray="4 3"
          />
        )}
      </svg>
      <div>
        <b data-in={!out}>{force_n.toFixed(1)} N</b>
        {banded ? `band ${low_n.toFixed(0)}–${high_n.toFixed(0)} N` : "no target range yet"}
        <br />
        {resistance?.found
          ? `resists at ${resistance.depth_mm?.toFixed(0)} mm`
          : resistance
            ? "no first resistance"
            : ""}
        <br />
        {cv_percent > 0 ? `pressure varies by ${cv_percent.toFixed(0)} %` : ""}
      </div>
    </Box>
  );
}
