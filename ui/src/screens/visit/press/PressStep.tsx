// What was charted, what was pressed, and the way into a hold.
import type { Schemas } from "../../../api/client";
import { NextUp } from "../next/NextUp";
import { AtPoint } from "./AtPoint";
import { Hands } from "./Hands";
import type { PressProps } from "./PressProps";
import { StiffShoulder } from "./StiffShoulder";
import { useOffers } from "./useOffers";
import { useHandLoad } from "./useHandLoad";

type Point = Schemas["Point"];

export function PressStep(props: PressProps) {
  const { state } = props.visit;
  const load = useHandLoad(props.visit, props.me.id);
  const offers = useOffers(props.visit);
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
      {inOrder(state.points, offers).map((p) => (
        <AtPoint
          key={p.point}
          {...props}
          point={p}
          offer={offers.find((o) => o.point === p.point)}
          load={load}
        />
      ))}
    </>
  );
}

/** In the core's order of pressing. */
function inOrder(points: Point[], offers: Schemas["Offer"][]): Point[] {
  const at = (p: Point) => offers.findIndex((o) => o.point === p.point);
  return [...points].sort((a, b) => at(a) - at(b));
}
