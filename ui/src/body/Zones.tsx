// Referral on the body: the usual one as dots, this client's own as strokes.

export interface Zone {
  kind: "usual" | "felt";
  size: number;
  cells: number[][];
}

export function ZoneShape({ z }: { z: Zone }) {
  return (
    <g aria-hidden opacity={0.85}>
      {z.cells.map(([x = 0, y = 0]) =>
        z.kind === "usual" ? (
          <circle key={`${x},${y}`} cx={x} cy={y} r={z.size * 0.2} fill="var(--usual)" />
        ) : (
          <path
            key={`${x},${y}`}
            d={slash(x, y, z.size * 0.36)}
            stroke="var(--felt)"
            strokeWidth={z.size * 0.2}
            strokeLinecap="round"
          />
        ),
      )}
    </g>
  );
}

const slash = (x: number, y: number, r: number) => `M${x - r},${y + r}L${x + r},${y - r}`;
