// The pace of a hold as one large calm shape that is read from the corner of the
// eye: it swells where one presses and sinks where one eases; the ring round it
// is the time of this part.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { type Look, lookOf } from "./paceLooks";

const size = 200;
const middle = size / 2;
/** Done as if the middle were the origin. */
const aroundMiddle = (what: string) =>
  `translate(${middle} ${middle}) ${what} translate(${-middle} ${-middle})`;
const ring = 86;
const round = 2 * Math.PI * ring;
/** The outer ring: one piece for each repeat, breath, round or station. */
const outer = 97;
const outerRound = 2 * Math.PI * outer;
const gap = 5;

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: 100%;
  .shape {
    fill: var(--accent-soft);
    stroke: var(--accent);
    stroke-width: 4;
    transition: transform 1.1s ease-in-out;
  }
  .shape[data-kind="rest"],
  .shape[data-kind="wait"] {
    fill: none;
    stroke: var(--line);
  }
  .shape[data-kind="ease"] {
    fill: var(--warn-soft);
    stroke: var(--warn);
  }
  .shape[data-kind="off"] {
    fill: none;
    stroke: var(--warn);
    stroke-dasharray: 10 9;
  }
  .fill {
    fill: var(--accent);
    opacity: 0.55;
  }
  .piece {
    fill: none;
    stroke: var(--line);
    stroke-width: 5;
  }
  .piece[data-on="true"] {
    stroke: var(--ink);
  }
  .left {
    fill: none;
    stroke: var(--accent);
    stroke-width: 7;
    stroke-linecap: round;
  }
  .track {
    fill: none;
    stroke: var(--line-soft);
    stroke-width: 7;
  }
  .way {
    fill: none;
    stroke: var(--accent);
    stroke-width: 5;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  @media (prefers-reduced-motion: reduce) {
    .shape {
      transition: none;
    }
  }
`;

export function Pace({ line, plan }: { line: Schemas["Line"]; plan?: Schemas["HoldPlan"] }) {
  const look = lookOf(line, plan);
  const left = line.part_s > 0 ? line.part_left_s / line.part_s : 0;
  return (
    <Svg viewBox={`0 0 ${size} ${size}`} role="img" aria-label={look.words} data-pace={look.kind}>
      <circle className="track" cx={middle} cy={middle} r={ring} />
      {left > 0 && (
        <circle
          className="left"
          cx={middle}
          cy={middle}
          r={ring}
          strokeDasharray={`${left * round} ${round}`}
          transform={`rotate(-90 ${middle} ${middle})`}
        />
      )}
      <circle
        className="shape"
        data-kind={look.kind}
        cx={middle}
        cy={middle}
        r="74"
        transform={aroundMiddle(`scale(${look.wide} ${look.high})`)}
      />
      <Within look={look} />
      <Pieces of={look.of} at={look.at} />
    </Svg>
  );
}

/** What is within the shape: how far the ramp is, which way one moves. */
function Within({ look: { share, way } }: { look: Look }) {
  const high = 148 * share;
  return (
    <>
      {share > 0 && (
        <>
          <clipPath id="in-pace">
            <circle cx={middle} cy={middle} r="70" />
          </clipPath>
          <rect className="fill" clipPath="url(#in-pace)" x="0" width={size} y={174 - high} height={high} />
        </>
      )}
      {way && <path className="way" d={way} />}
    </>
  );
}

/** One piece of the outer ring for each repeat; those reached are bright. */
function Pieces({ of, at }: { of: number; at: number }) {
  if (of < 2) return null;
  const each = outerRound / of;
  return Array.from({ length: of }, (_, i) => (
    <circle
      key={i}
      className="piece"
      data-on={i < at}
      cx={middle}
      cy={middle}
      r={outer}
      strokeDasharray={`${each - gap} ${outerRound}`}
      transform={`rotate(${(360 * i) / of - 90} ${middle} ${middle})`}
    />
  ));
}
