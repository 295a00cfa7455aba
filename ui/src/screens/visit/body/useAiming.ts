// What is aimed at or chosen on the body.
import { useCallback, useState } from "react";
import type { Schemas } from "../../../api/client";
import type { View } from "../../../body/views";

export interface MuscleSide {
  muscle: Schemas["MuscleID"];
  side: Schemas["Side"];
}

export interface Aim {
  view: View;
  x: number;
  y: number;
  /** Which touch it began with; what moves it in small steps is not another touch. */
  touch?: number;
  under?: Schemas["UnderOut"];
  candidate?: Schemas["Candidate"];
  /** The spot of an earlier visit that lies there. */
  identity?: string;
}

/** An aim at a muscle. */
export type Aimed = Aim & { candidate: Schemas["Candidate"] };

export function useAiming() {
  const [aim, setAim] = useState<Aim>();
  /** A point of this visit. */
  const [selected, select] = useState<string>();
  /** The suspect that is looked for. */
  const [chosen, setChosen] = useState<MuscleSide>();
  const setSelected = useCallback((point: string | undefined) => {
    setAim(undefined);
    select(point);
  }, []);
  const leave = useCallback(() => setSelected(undefined), [setSelected]);
  return { aim, setAim, selected, setSelected, chosen, setChosen, leave };
}
