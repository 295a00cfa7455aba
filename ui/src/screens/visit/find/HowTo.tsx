import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { Disclosed } from "../../../parts/controls";
import { Bullets } from "../../../parts/layout";
import { HowFar } from "../../../parts/HowFar";
import { unbroken } from "../../../parts/words";
import { nearWords } from "../../../parts/unitPreferences";

/** How to find and confirm a muscle, and what lies near. */
export function HowTo({ guide, height }: { guide: Schemas["Guide"]; height: number }) {
  const site = guide.sites[0];
  return (
    <Disclosed summary="How to find and confirm it">
      <p>
        <Link to={`/guide/${guide.muscle}/${guide.side}?height=${height}${site ? `&site=${site.site}` : ""}`}>
          Step by step, at the table
        </Link>
      </p>
      <Bullets as="ol">
        {guide.steps.map((s) => (
          <li key={s}>{unbroken(s)}</li>
        ))}
      </Bullets>
      <p>
        <b>Confirm.</b> {unbroken(guide.confirm.text)}
      </p>
      {guide.near.map((n) => (
        <p key={n.structure}>
          <b>{n.name}</b>, <HowFar n={n} />. {nearWords(n)}
        </p>
      ))}
    </Disclosed>
  );
}
