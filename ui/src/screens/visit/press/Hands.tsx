import type { Schemas } from "../../../api/client";
import type { Core } from "../../../core/core";
import { Button } from "../../../parts/controls";
import { Row, Said } from "../../../parts/layout";
import { one, plain } from "../../../parts/words";
import { gentler, type HandLoad, useAdds } from "./useHandLoad";

/** What one's own hands have borne; shown to oneself only. */
export function Hands({ load }: { load: HandLoad }) {
  const over = load.today > load.limit;
  return (
    <Said className={over ? undefined : "quiet"} $tone={over ? "warn" : undefined} $small data-hands>
      Your hands today: {one(load.today)} of {load.limit} thumb-minutes · {one(load.week)} this week.
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
  const contacts = point.contacts.map((c) => c.id as Schemas["ContactID"]);
  const adds = useAdds(core, contacts, seconds);
  if (!contact || !adds) return null;
  const after = load.today + (adds[contact]?.week_thumb_minutes ?? 0);
  if (after <= load.limit) return null;
  const [instead] = gentler(adds, contact, point.contacts);
  return (
    <Row data-spare>
      <Said $tone="warn" $small>
        This hold could bring your hands to {one(after)} of {load.limit} thumb-minutes today.
      </Said>
      {instead && <Button onPress={() => onChoose(instead)}>Rather {plain(instead)}</Button>}
    </Row>
  );
}
