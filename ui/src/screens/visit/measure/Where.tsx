import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import { plain } from "../../../parts/words";
import type { Placing } from "./reading";

/** Where it is felt, said by a touch on the body. */
export function Where({
  at,
  placing,
  onOff,
}: {
  at?: Schemas["Range"];
  placing?: Placing;
  onOff: (r: Schemas["Range"]) => void;
}) {
  if (!at || !placing || !(at.felt || at.before_pain)) return null;
  const now = placing.feeling?.movement === at.movement && placing.feeling.side === at.side;
  return (
    <Row>
      {at.felt_region && (
        <Button aria-label={`${plain(at.felt_region)}: take it off`} onPress={() => onOff(at)}>
          {plain(at.felt_region)}
        </Button>
      )}
      <Button
        $kind={now ? "main" : "plain"}
        aria-pressed={now}
        onPress={() => placing.setFeeling(now ? undefined : { movement: at.movement, side: at.side })}
      >
        {now ? "Touch the body where it is felt" : "Show where it is felt"}
      </Button>
    </Row>
  );
}
