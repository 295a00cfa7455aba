// How hard the hand presses, as a slider that keys move too, or from the pad.
import { Button } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import { Slide } from "../../../parts/Slide";
import { type HandForce, mostN } from "./force";

export function ForceSlide({ hand }: { hand: HandForce }) {
  return (
    <>
      <Slide
        label="Force"
        value={hand.newtons}
        min={0}
        max={mostN}
        describe={(n) => `${Math.round(n)} N`}
        onSlide={hand.set}
      />
      {hand.pad && (
        <Row>
          <Button aria-pressed={hand.byPad} onPress={hand.toggle}>
            {hand.byPad ? "By hand again" : "From the pressure pad"}
          </Button>
        </Row>
      )}
    </>
  );
}
