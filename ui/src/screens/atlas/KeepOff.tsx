import { Button as AriaButton } from "react-aria-components";
import type { Schemas } from "../../api/client";
import { Card } from "../../parts/controls";
import { Said } from "../../parts/layout";
import { useStructures } from "./drawn";
import type { AtlasView } from "./useAtlas";

/** What to keep off in the views that are shown. */
export function KeepOff({ atlas }: { atlas: AtlasView }) {
  const { keep, setKeep } = atlas;
  return (
    <>
      <Said className="quiet" $small>
        Nerves, vessels and bones to keep off in these views. Courses vary: the sign counts more than the
        line.
      </Said>
      <ul className="list" aria-label="Structures to keep off">
        {useStructures(atlas).map((s) => (
          <li key={s.structure}>
            <AriaButton
              aria-current={keep === s.structure}
              onFocus={() => setKeep(s.structure)}
              onPress={() => setKeep(s.structure)}
            >
              <span>{s.name}</span>
            </AriaButton>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The sign of a structure, and what to do then. */
export function Structure({ s }: { s: Schemas["Keep"] }) {
  return (
    <Card>
      <h2>{s.name}</h2>
      <p>
        <b>Sign.</b> {s.sign}.
      </p>
      <p>
        <b>Then.</b> {s.do}
      </p>
    </Card>
  );
}
