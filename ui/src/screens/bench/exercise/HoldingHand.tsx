// The hand of a hold with a simulated client: how hard it presses, and the question for a number.
import { useEffect, useRef } from "react";
import { refresh } from "../../../core/clock";
import { Button } from "../../../parts/controls";
import { ForceSlide } from "./ForceSlide";
import { useHandForce } from "./force";
import type { Doing, ClientTold } from "./useExercise";

/** A slider that moves is told so often, and the client is looked at so often. */
const tellMS = 100;
const lookMS = 500;

interface Props {
  doing: Doing;
  /** What a hold on screen is told of the hand. */
  onForce?: (n: number, before: number) => void;
  onAnswer?: (told: ClientTold[]) => void;
}

export function HoldingHand({ doing, onForce, onAnswer }: Props) {
  // Where it was left, of a hold that goes on from a moment.
  const first = doing.actions.findLast((a) => a.action === "press" && !a.view)?.force_n ?? 0;
  const hand = useHandForce(first);
  const told = useRef(first);
  const latest = useRef({ n: 0, doing, onForce });
  latest.current = { n: hand.newtons, doing, onForce };
  useEffect(
    () =>
      refresh(tellMS, () => {
        const { n, doing: d, onForce: tell } = latest.current;
        if (n === told.current) return;
        const before = told.current;
        told.current = n;
        void d.act({ action: "press", force_n: n });
        tell?.(n, before);
      }),
    [],
  );
  useEffect(() => refresh(lookMS, () => latest.current.doing.look()), []);
  const ask = () => void doing.act({ action: "ask" }).then((t) => onAnswer?.(t));
  return (
    <>
      <ForceSlide hand={hand} />
      <Button $kind="main" $large onPress={ask}>
        Ask for a number
      </Button>
    </>
  );
}
