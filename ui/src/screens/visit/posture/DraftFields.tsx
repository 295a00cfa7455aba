// The numbers of a posture reading, typed.
import { Choice, Num } from "../../../parts/controls";
import { Columns } from "../../../parts/layout";
import { Length } from "../../../parts/Length";
import type { Draft } from "./draft";
import { type Measure, slopes } from "./measures";

export function DraftFields({ m, v, setV }: { m: Measure; v: Draft; setV: (v: Draft) => void }) {
  return (
    <>
      {slopes(m) && (
        <Columns $cols="1fr 1fr 1fr">
          <Length
            label="Distance"
            value={v.distance}
            min={0}
            max={300}
            step={0.1}
            onCommit={(distance) => setV({ ...v, distance })}
          />
          <Length
            label="Height difference"
            value={v.height}
            min={-300}
            max={300}
            step={0.1}
            onCommit={(height) => setV({ ...v, height })}
          />
          <Num
            label="Slope"
            unit="°"
            value={v.slope}
            min={-90}
            max={90}
            step={0.1}
            onCommit={(slope) => setV({ ...v, slope })}
          />
        </Columns>
      )}
      {m.how === "cm-side" && (
        <Length
          label="Distance"
          value={v.cm}
          min={0}
          max={100}
          step={0.1}
          onCommit={(cm) => setV({ ...v, cm })}
        />
      )}
      {m.how === "curve" && (
        <Choice
          label="It is, or it bends"
          value={v.kind}
          options={["flat", "usual", "deep", "even", "hinge"] as const}
          onChoose={(kind) => setV({ ...v, kind })}
        />
      )}
    </>
  );
}
