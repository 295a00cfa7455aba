// Signs that were seen in squat or toe-touch: still there, or gone.
import type { Schemas } from "../../../api/client";
import { Card, Choice } from "../../../parts/controls";
import type { StepProps } from "../StepProps";

export function SignsAgain({ visit, list }: StepProps & { list: Schemas["ToRecheck"][] }) {
  const { state, core, write } = visit;
  if (list.length === 0) return null;
  const nameOf = (sign: string, side: string) => {
    const name = core.lists.signs.find((s) => s.sign === sign)?.name ?? sign;
    return side === "midline" ? name : `${name}, ${side}`;
  };
  return (
    <Card data-signs-again>
      <h2>Squat again: seen before</h2>
      {list.map(({ sign, side = "midline" }) => {
        const seen = state.signs_after?.find((s) => s.sign === sign && s.side === side);
        return (
          sign && (
            <Choice
              key={sign + side}
              label={nameOf(sign, side)}
              value={seen && (seen.present ? "still there" : "gone")}
              options={["still there", "gone"] as const}
              onChoose={(v) =>
                write("sign-seen", { sign, side, present: v === "still there", moment: "after" })
              }
            />
          )
        );
      })}
    </Card>
  );
}
