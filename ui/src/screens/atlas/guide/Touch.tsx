// The hand's contact on the skin at its size, and the way it presses: slowly in,
// a little toward the origin, so that it does not slide off the band.
import type { Schemas } from "../../../api/client";

type Contact = Schemas["ContactID"];

interface Pad {
  /** Along and across the fibres, mm. */
  along: number;
  across: number;
  /** How many of them lie side by side, and how far apart, mm. */
  count?: number;
  apart?: number;
}

/** Sizes of a grown-up's hand: working values. */
const pads: Record<Contact, Pad> = {
  "thumb-pad": { along: 26, across: 20 },
  "thumb-over-thumb": { along: 28, across: 22 },
  "pisiform-over-thumb": { along: 28, across: 22 },
  "thenar-over-thumb": { along: 30, across: 24 },
  fingertips: { along: 16, across: 14, count: 3, apart: 18 },
  "braced-fingers": { along: 16, across: 14, count: 2, apart: 17 },
  pincer: { along: 22, across: 12, count: 2, apart: 34 },
  knuckle: { along: 24, across: 18 },
  elbow: { along: 32, across: 30 },
  forearm: { along: 110, across: 46 },
  palm: { along: 90, across: 80 },
  "own-thigh": { along: 120, across: 110 },
  tool: { along: 14, across: 14 },
};

interface Props {
  contact: Contact;
  at: Schemas["XY"];
  /** Way of the fibres in the view, degrees. */
  along: number;
  /** View units of a millimetre. */
  mm: number;
  k: number;
}

export function Touch({ contact, at, along, mm, k }: Props) {
  const { along: length, across, count = 1, apart = 0 } = pads[contact];
  const places = Array.from({ length: count }, (_, i) => (i - (count - 1) / 2) * apart * mm);
  const far = (length / 2 + 14) * mm;
  return (
    <g
      data-contact={contact}
      transform={`translate(${at.x} ${at.y}) rotate(${along})`}
      pointerEvents="none"
      stroke="var(--accent)"
      strokeWidth={2 * k}
    >
      {places.map((y) => (
        <ellipse
          key={y}
          cy={y}
          rx={(length / 2) * mm}
          ry={(across / 2) * mm}
          fill="var(--accent)"
          fillOpacity={0.22}
        />
      ))}
      <path
        d={`M${far} 0 L${far - 11 * mm} 0 m${5 * mm} ${-4 * mm} l${-5 * mm} ${4 * mm} l${5 * mm} ${4 * mm}`}
        fill="none"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </g>
  );
}
