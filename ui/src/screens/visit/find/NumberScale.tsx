// The client's number at test pressure, on the scale that the practice uses. It
// is kept as given; what it comes to on 0 to 10 is the core's to say.
import { useState } from "react";
import type { Core } from "../../../core/core";
import { Choice, Perhaps } from "../../../parts/controls";
import { one } from "../../../parts/words";
import { Said } from "../../../parts/layout";
import { type Chart, numbersOf, type Scale } from "./chart";

const kept = "mokren.scale";
const scales: Scale[] = ["0-10", "0-5", "1-10"];
const names: Record<Scale, string> = { "0-10": "0 to 10", "0-5": "comfort scale 0–5", "1-10": "1 to 10" };

export function useScale(c: Chart) {
  const [scale, setScale] = useState<Scale>(
    () => c.scale ?? scales.find((s) => s === localStorage.getItem(kept)) ?? "0-10",
  );
  const choose = (s: Scale) => {
    localStorage.setItem(kept, s);
    setScale(s);
  };
  return { scale, choose };
}

interface Props {
  c: Chart;
  set: (over: Partial<Chart>) => void;
  core: Core;
  scale: Scale;
}

export function NumberScale({ c, set, core, scale }: Props) {
  const say = async (v: number | undefined) => {
    if (v === undefined || scale === "0-10") return set({ nprs: v, given: undefined, scale: undefined });
    const { nprs } = await core.ask("number", { given: v, scale });
    set({ nprs, given: v, scale });
  };
  return (
    <div>
      <Perhaps
        scale
        label={`Score at test pressure (${names[scale]})`}
        value={scale === "0-10" ? c.nprs : c.given}
        options={numbersOf[scale]}
        onChoose={say}
      />
      {c.given !== undefined && (
        <Said className="quiet" $small>
          Kept as {c.given}; counts as {one(c.nprs)} of 10.
        </Said>
      )}
    </div>
  );
}

export const ScaleChoice = ({ scale, choose }: ReturnType<typeof useScale>) => (
  <Choice
    label="Scale of the score"
    value={scale}
    options={scales}
    describe={(s) => names[s]}
    onChoose={choose}
  />
);
