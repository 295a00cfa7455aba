import { WordButton } from "../../parts/controls";
import { count } from "../../parts/words";

export interface More {
  /** Opened visits that are not shown. */
  older: number;
  onAll: () => void;
}

/** Says that older visits are left out, and shows them when asked to. */
export function Older({ older, onAll }: More) {
  return (
    <p className="quiet" role="note">
      {count(older, "visit")} between the first and the latest {older === 1 ? "is" : "are"} left out.{" "}
      <WordButton onPress={onAll}>Show all</WordButton>
    </p>
  );
}
