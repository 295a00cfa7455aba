// What belongs to a step besides its sentence.
import type { Schemas } from "../../../api/client";
import { HowFar } from "../../../parts/HowFar";
import { nearWords } from "../../../parts/unitPreferences";
import { plain } from "../../../parts/words";
import type { Core } from "../../../core/core";
import { muscleName } from "../../visit/pointWords";
import { motion } from "../motion";

interface Props {
  g: Schemas["Guide"];
  core: Core;
  kind: Schemas["DrawStep"]["kind"];
  first: boolean;
}

/** So many warnings and neighbours are read at the table. */
const few = 3;

export function More({ g, core, kind, first }: Props) {
  return (
    <>
      {first && (
        <p className="more">
          <b>Lies</b> {g.positions.map(plain).join(", ")}. <b>Drape.</b> {g.draping}{" "}
          {g.ease_first.length > 0 && (
            <>
              <b>Ease first</b> {g.ease_first.map(plain).join(", ")}.
            </>
          )}
        </p>
      )}
      {kind === "site" &&
        g.near.slice(0, few).map((n) => (
          <p key={n.structure} className="keep">
            <b>
              {n.name}, <HowFar n={n} />.
            </b>{" "}
            {nearWords(n)}
          </p>
        ))}
      {kind === "strum" && (
        <p className="more">
          <b>First choice</b> {plain(g.contacts[0] ?? "")}, drawn at its size.{" "}
          {g.contacts.length > 1 && (
            <>
              <b>Or</b> {g.contacts.slice(1).map(plain).join(", ")}.{" "}
            </>
          )}
          <b>Slack</b> {g.slack.map(motion).join("; ")}. <b>Tension</b> {g.tension.map(motion).join("; ")}.
        </p>
      )}
      {kind === "trace" &&
        g.mistaken_for.slice(0, few).map((n) => (
          <p key={n.muscle} className="more">
            <b>{muscleName(core, n.muscle)}.</b> {n.tell}
          </p>
        ))}
      {kind === "confirm" && <Confirm g={g} />}
    </>
  );
}

function Confirm({ g }: { g: Schemas["Guide"] }) {
  return (
    <>
      <p className="more">
        <b>Usually sends pain to</b>{" "}
        {g.referral.essential.map(plain).join(", ") || "nowhere: pressing technique only"}. Ask openly; a
        guide, never proof.
      </p>
      {g.cautions.map((c) => (
        <p key={c} className="keep">
          {c}
        </p>
      ))}
    </>
  );
}
