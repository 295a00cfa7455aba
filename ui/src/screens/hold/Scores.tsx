import { memo } from "react";
import { styled } from "styled-components";
import { Key } from "../../parts/controls";
import { upright } from "../../theme";
import { trendKeys } from "./keys";
import { SaidKey } from "./SaidKey";
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

/** A number, drawn anew only when it changes itself, as each key of a hold (SaidKey). */
const ScoreKey = memo(function ScoreKey({ n, warn, off, act }: ScoreProps) {
  return (
    <Score
      $n={n}
      $tone={warn ? "warn" : undefined}
      isDisabled={off}
      onPress={() => act("score", n)}
      aria-label={`Number ${n}`}
    >
      {n}
    </Score>
  );
});

interface ScoreProps {
  n: number;
  warn: boolean;
  off: boolean;
  act: Act;
}

/** The client's number, or only which way it goes; and the last answer taken
 * back. */
export function Scores({ soft, off, canUndo, act }: Props) {
  const score = (n: number, warn = n > soft) => <ScoreKey key={n} n={n} warn={warn} off={off} act={act} />;
  return (
    <div className="scores" role="group" aria-label="The client's number">
      {trendKeys.map((s) => (
        <SaidKey key={s.name} sign={s} off={off} act={act} />
      ))}
      {[7, 8, 9, 4, 5, 6, 1, 2, 3].map((n) => score(n))}
      {score(0)}
      {score(10, true)}
      <Key isDisabled={!canUndo} onPress={() => act("undo")}>
        Undo<kbd>⌫</kbd>
      </Key>
    </div>
  );
}
