// What was charted, what was pressed, and the way into a hold.
import type { Schemas } from "../../../api/client";
import { NextUp } from "../next/NextUp";
import { AtPoint } from "./AtPoint";
import { Hands } from "./Hands";
import type { PressProps } from "./PressProps";
import { StiffShoulder } from "./StiffShoulder";
import { useHandLoad } from "./useHandLoad";

type Point = Schemas["Point"];

export function PressStep(props: PressProps) {
  const { state } = props.visit;
  const load = useHandLoad(props.visit, props.me.id);
  const led = props.led.map((l) => (
    <StiffShoulder key={l.side} led={l} points={state.points} holds={state.holds} />
  ));
  if (state.points.length === 0)
    return (
      <>
        {led}
        <NextUp
          visit={props.visit}
          title="Nothing charted yet"
          why="A point is found and charted first: its muscle and its place set the limits of the hold."
        />
      </>
    );
  return (
    <>
      {load && <Hands load={load} />}
      {led}
      {inOrder(state).map((p) => (
        <AtPoint key={p.point} {...props} point={p} load={load} />
      ))}
    </>
  );
}

/** As planned, then as charted. */
function inOrder({ points, plan }: Schemas["State"]): Point[] {
  const at = (p: Point) => {
    const i = plan?.order?.indexOf(p.point) ?? -1;
    return i < 0 ? points.length : i;
  };
  return [...points].sort((a, b) => at(a) - at(b));
}
