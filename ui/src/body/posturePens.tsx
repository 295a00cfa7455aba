// What posture readings are drawn with.

export interface Place {
  x: number;
  y: number;
}

interface LabelProps {
  at: Place;
  text: string;
  anchor?: "start" | "middle" | "end";
  k: number;
}

export function Label({ at, text, anchor = "middle", k }: LabelProps) {
  return (
    <text
      x={at.x}
      y={at.y}
      fontSize={20 * k}
      fontWeight={650}
      textAnchor={anchor}
      fill="var(--ink)"
      stroke="var(--card)"
      strokeWidth={5 * k}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
}

/** What a reading is compared with. */
export function Level({ a, b, k }: { a: Place; b: Place; k: number }) {
  return (
    <line
      x1={a.x}
      y1={a.y}
      x2={b.x}
      y2={b.y}
      stroke="var(--ink-soft)"
      strokeWidth={k}
      strokeDasharray={`${3 * k} ${4 * k}`}
    />
  );
}

/** A reading; stronger where it is flagged. */
export function Line({ d, flagged, k }: { d: string; flagged: boolean; k: number }) {
  return (
    <path
      d={d}
      fill="none"
      stroke="var(--right)"
      strokeWidth={(flagged ? 3 : 1.8) * k}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}
