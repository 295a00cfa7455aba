import { listed, movementName } from "../../parts/words";

interface Motion {
  movement: string;
  toward?: string;
  deg?: number;
  text?: string;
}

/** A movement with its way, its degrees and what else is to be said. */
export function motion({ movement, toward, deg, text }: Motion) {
  const way = toward ? (toward === "own" ? " toward it" : " away from it") : "";
  const degrees = deg === undefined ? "" : ` ${deg}°`;
  return listed(movementName(movement).toLowerCase() + way + degrees, text);
}
