import type { Schemas } from "../../../api/client";
import type { StepProps } from "../StepProps";

/** What the pressing works on beside the visit. */
export interface PressProps extends StepProps {
  me: Schemas["Me"];
  selected?: string;
  setSelected: (id: string) => void;
  height: number;
  work: Schemas["PointWork"][];
  led: Schemas["Guidance"][];
}
