// What worked, with the counts that it rests on.
import type { Schemas } from "../../api/client";
import { Card } from "../../parts/controls";
import { Bullets } from "../../parts/layout";
import { one, plain, sentence } from "../../parts/words";

interface Props {
  list: Schemas["ProtocolOutcome"][];
  lengthening?: Schemas["Lengthening"];
}

export function Worked({ list, lengthening }: Props) {
  if (list.length === 0) return null;
  return (
    <Card data-worked>
      <h2>What worked here</h2>
      <Bullets>
        {list.map((w) => (
          <li key={w.protocol}>
            <b>{sentence(plain(w.protocol))}</b>: lower after {w.clear.yes} of {w.clear.of} holds
            {w.clear.few ? ", too few to say more" : ` (${share(w.clear)})`}
            {w.seconds_per_point !== undefined &&
              `; ${Math.round(w.seconds_per_point)} s per point of pain reduced`}
            {w.drop <= 0 && `; the number did not fall (${one(-w.drop)})`}.
          </li>
        ))}
        {lengthening && (
          <li data-lengthening>
            <b>With lengthening after the hold</b>: lower after {lengthening.with.clear.yes} of{" "}
            {lengthening.with.clear.of}, {one(lengthening.with.drop)} on average; without:{" "}
            {lengthening.without.clear.yes} of {lengthening.without.clear.of}, {one(lengthening.without.drop)}
            .{(lengthening.with.clear.few || lengthening.without.clear.few) && " Too few to say more."}
          </li>
        )}
      </Bullets>
    </Card>
  );
}

/** The interval of a share in words. */
const share = (s: Schemas["Share"]) =>
  `${Math.round(s.low * 100)} to ${Math.round(s.high * 100)} in 100 times`;
