import type { Schemas } from "../../../api/client";
import { useAsk } from "../../../core/useAsk";
import type { Core } from "../../../core/core";
import { Button } from "../../../parts/controls";
import { Row, Said } from "../../../parts/layout";
import { one, plain } from "../../../parts/words";
import type { HandLoad } from "./useHandLoad";

/** What one's own hands have borne; shown to oneself only. */
export function Hands({ load }: { load: HandLoad }) {
  const over = load.today > load.limit;
  return (
    <Said className={over ? undefined : "quiet"} $tone={over ? "warn" : undefined} $small data-hands>
      Thumb load today: {one(load.today)} of {load.limit} min · {one(load.week)} this week.
    </Said>
  );
}

interface Props {
  core: Core;
  load: HandLoad;
  point: Schemas["Point"];
  contact: Schemas["ContactID"] | undefined;
  seconds: number;
  onChoose: (c: Schemas["ContactID"]) => void;
}

/** A hold that would pass the day's limit is warned of before it begins, with a
 * contact that suits the site and spares the thumb. */
export function SpareTheThumb({ core, load, point, contact, seconds, onChoose }: Props) {
  const suit = point.contacts.filter((c) => !c.why).map((c) => c.id as Schemas["ContactID"]);
  const next = contact && { contact, seconds, day: load.day };
  const spare = useAsk(core, "hand-spare", next && { holds: load.holds, next, suit });
  if (!spare?.over) return null;
  const { after_thumb_minutes: after, instead } = spare;
  return (
    <Row data-spare>
      <Said $tone="warn" $small>
        This hold could bring your hands to {one(after)} of {load.limit} thumb-minutes today.
      </Said>
      {instead && <Button onPress={() => onChoose(instead)}>Rather {plain(instead)}</Button>}
    </Row>
  );
}
