import { styled } from "styled-components";
import { Key } from "../../parts/controls";
import { upright } from "../../theme";
import { trendKeys } from "./keys";
import type { Act } from "./useHold";

/** Upright they stand in their order, five in a row. */
const Score = styled(Key)<{ $n: number }>`
  font-size: 40px;
  font-variant-numeric: tabular-nums;
  ${upright} {
    && {
      order: ${(p) => p.$n};
    }
  }
`;

interface Props {
  /** Numbers above it are warned of. */
  soft: number;
  off: boolean;
  canUndo: boolean;
  act: Act;
}

/** The client's number, or only which way it goes; and the last answer taken
 * back. */
export function Scores({ soft, off, canUndo, act }: Props) {
  const score = (n: number, tone?: "warn") => (
    <Score
      key={n}
      $n={n}
      $tone={tone}
      isDisabled={off}
      onPress={() => act("score", n)}
      aria-label={`Number ${n}`}
    >
      {n}
    </Score>
  );
  return (
    <div className="scores" role="group" aria-label="The client's number">
      {trendKeys.map((s) => (
        <Key key={s.name} isDisabled={off} onPress={() => act(s.event, s.value)}>
          {s.name}
          <kbd>{s.key}</kbd>
        </Key>
      ))}
      {[7, 8, 9, 4, 5, 6, 1, 2, 3].map((n) => score(n, n > soft ? "warn" : undefined))}
      {score(0)}
      {score(10, "warn")}
      <Key isDisabled={!canUndo} onPress={() => act("undo")}>
        Undo<kbd>⌫</kbd>
      </Key>
    </div>
  );
}
