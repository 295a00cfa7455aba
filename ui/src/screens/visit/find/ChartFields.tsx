// What is felt at a point, by a touch each.
import type { Schemas } from "../../../api/client";
import { gradeWord } from "../../../body/marks";
import { Choice, Choices, Text } from "../../../parts/controls";
import { Row, Said } from "../../../parts/layout";
import { plain } from "../../../parts/words";
import type { Chart } from "./chart";

const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

interface Props {
  c: Chart;
  set: (over: Partial<Chart>) => void;
  /** Where the muscle usually sends pain. */
  usual: Schemas["RegionID"][];
  missing: string;
}

export function ChartFields({ c, set, usual, missing }: Props) {
  return (
    <>
      <Choice
        scale
        label="Number at test pressure (0–10)"
        value={c.nprs}
        options={numbers}
        onChoose={(nprs) => set({ nprs })}
      />
      {missing && (
        <Said role="alert" $tone="stop">
          {missing}
        </Said>
      )}
      <Choice
        label={`Tenderness grade: ${gradeWord(c.grade)}`}
        value={c.grade}
        options={[0, 1, 2, 3, 4]}
        onChoose={(grade) => set({ grade })}
      />
      <Choice
        label="Is this the pain you came with?"
        value={c.familiar}
        options={["yes", "partly", "no", "unknown"] as const}
        onChoose={(familiar) => set({ familiar })}
      />
      <Row $gap={4} $wrap $align="start">
        <Choice
          label="Taut band"
          value={c.band}
          options={["yes", "no", "unsure"] as const}
          onChoose={(band) => set({ band })}
        />
        <Choice
          label="Nodule"
          value={c.nodule}
          options={["none", "grain", "pea", "larger"] as const}
          onChoose={(nodule) => set({ nodule })}
        />
        <Choice
          label="Twitch"
          value={c.twitch ? "yes" : "no"}
          options={["yes", "no"] as const}
          onChoose={(v) => set({ twitch: v === "yes" })}
        />
      </Row>
      <Choices
        label="Where does the client feel it? Ask openly."
        values={c.felt}
        options={usual}
        describe={plain}
        onChange={(felt) => set({ felt })}
      />
      <Text label="Note" value={c.note} onChange={(note) => set({ note })} />
    </>
  );
}
