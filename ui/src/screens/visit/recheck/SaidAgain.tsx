// The client's own activities, scored again, and how the client stands and walks.
import type { Schemas } from "../../../api/client";
import { useWhole } from "../../../core/useWhole";
import { Card, Choice } from "../../../parts/controls";
import type { StepProps } from "../StepProps";

type Noted = Schemas["RecheckNoted"];
const scores = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
const walks = ["easier", "the same", "stiff", "painful", "unsteady"] as const;

interface Props extends StepProps {
  activities: Schemas["ToRecheck"][];
  walk: boolean;
}

export function SaidAgain({ visit, activities, walk }: Props) {
  const { state, write } = visit;
  const whole = useWhole<Noted>(visit);
  const said = whole.of("after", state.after ?? {});
  /** It is sent whole, so that two editors see a conflict. */
  const keep = (change: Noted) => {
    const all = { ...whole.of("after", state.after ?? {}), ...change };
    whole.wrote("after", all, write("recheck-noted", all));
  };
  const scored = (name: string, score: number) =>
    keep({
      activities: [
        ...(whole.of("after", state.after ?? {}).activities ?? []).filter((a) => a.name !== name),
        { name, score },
      ],
    });
  const before = state.interview?.activities ?? [];
  return (
    <>
      {activities.length > 0 && (
        <Card data-activities-again>
          <h2>What the client wants back</h2>
          {activities.map(
            ({ activity: name }) =>
              name && (
                <Choice
                  key={name}
                  scale
                  label={`${name}: was ${before.find((a) => a.name === name)?.score ?? "–"} of 10`}
                  value={said.activities?.find((a) => a.name === name)?.score}
                  options={scores}
                  onChoose={(n) => scored(name, n)}
                />
              ),
          )}
          <p className="quiet">0 is not able to, 10 is as before the complaint.</p>
        </Card>
      )}
      {walk && (
        <Card data-walk>
          <h2>Stand and walk a few steps</h2>
          <Choice
            label="Standing and walking is"
            value={said.walk}
            options={walks}
            onChoose={(v) => keep({ walk: v })}
          />
        </Card>
      )}
    </>
  );
}
