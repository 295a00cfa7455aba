// What a session has beside its points, in minutes.
import type { Schemas } from "../../../api/client";
import { Disclosed, Num } from "../../../parts/controls";
import { Columns } from "../../../parts/layout";

type Blocks = Schemas["PlanBlocks"];

const names: Record<keyof Blocks, string> = {
  recheck: "Recheck",
  warm_up: "Warm-up",
  lengthen: "Lengthening",
  close: "Closing",
};
/** As the core has them. */
const usual = 5;

interface Props {
  blocks: Blocks | undefined;
  onChange: (b: Blocks) => void;
}

export function FixedBlocks({ blocks, onChange }: Props) {
  return (
    <Disclosed summary="Recheck, warm-up, lengthening, closing">
      <Columns $cols="repeat(4, minmax(0, 1fr))">
        {(Object.keys(names) as (keyof Blocks)[]).map((k) => (
          <Num
            key={k}
            label={names[k]}
            unit="min"
            min={0}
            max={60}
            value={blocks?.[k] ?? usual}
            onCommit={(v) => onChange({ ...blocks, [k]: v ?? usual })}
          />
        ))}
      </Columns>
    </Disclosed>
  );
}
