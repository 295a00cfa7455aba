import { movementName } from "../../parts/words";

interface Motion {
  movement: string;
  toward?: string;
  deg?: number;
  text?: string;
}

/** A movement with its way, its degrees and what else is to be said. */
export function motion({ movement, toward, deg, text }: Motion) {
  const way = toward ? (toward === "own" ? " toward it" : " away from it") : "";
  return `${movementName(movement).toLowerCase()}${way}${deg === undefined ? "" : ` ${deg}°`}${text ? `, ${text}` : ""}`;
}
