// A value between two ends.
import { Label, Slider, SliderThumb, SliderTrack } from "react-aria-components";
import { styled } from "styled-components";

const Look = styled(Slider)`
  display: grid;
  gap: var(--s1);
  min-width: 190px;
  label,
  .label {
    font-size: var(--t1);
    font-weight: 560;
    color: var(--ink-soft);
  }
  .track {
    height: 44px;
    position: relative;
    /* The thumb stays within, at either end. */
    margin: 0 14px;
  }
  .track::before {
    content: "";
    position: absolute;
    inset: 19px -14px;
    border-radius: 3px;
    background: var(--line);
  }
  .thumb {
    width: 26px;
    height: 26px;
    top: 50%;
    border-radius: 50%;
    background: var(--accent);
    border: 3px solid var(--card);
    box-shadow: 0 0 0 1px var(--accent);
  }
`;

export function Slide({
  label,
  value,
  min = 0,
  max = 100,
  describe,
  onSlide,
}: {
  label: string;
  value: number;
  min?: number;
  max?: number;
  /** The value in words, beside the label. */
  describe?: (v: number) => string;
  onSlide: (v: number) => void;
}) {
  return (
    <Look value={value} minValue={min} maxValue={max} onChange={(v) => typeof v === "number" && onSlide(v)}>
      <Label>
        {label}
        {describe && <b> {describe(value)}</b>}
      </Label>
      <SliderTrack className="track">
        <SliderThumb className="thumb" />
      </SliderTrack>
    </Look>
  );
}
