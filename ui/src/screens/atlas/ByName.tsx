import { useMemo, useState } from "react";
import { Button as AriaButton } from "react-aria-components";
import type { Schemas } from "../../api/client";
import { Pick, Text } from "../../parts/controls";
import { Columns, Stack } from "../../parts/layout";
import { movementName, plain, sentence } from "../../parts/words";
import { areas, positions } from "./modes";
import { useAsk } from "../../core/useAsk";
import type { AtlasView } from "./useAtlas";

const kindWords = (m: Schemas["AtlasEntry"]) =>
  ({ contact: "contact", anatomy: "never pressed" })[m.kind] ?? `layer ${m.layer}`;

/** Muscles by name, region, action, or how the client lies. */
export function ByName({ atlas: { core, all, guide, choose } }: { atlas: AtlasView }) {
  const [query, setQuery] = useState<Schemas["Query"]>({});
  const found = useAsk(core, "atlas", query)?.muscles;
  const actions = useMemo(() => [...new Set(all.flatMap((m) => m.actions))].sort(), [all]);
  return (
    <>
      <Stack>
        <Text
          label="Name, Latin or common"
          value={query.text ?? ""}
          onChange={(text) => setQuery({ ...query, text })}
        />
        <Pick
          label="Region"
          none="anywhere"
          value={query.region}
          options={areas}
          describe={(r) => sentence(plain(r))}
          onPick={(region) => setQuery({ ...query, region })}
        />
        <Columns $cols="1fr 1fr">
          <Pick
            label="Action"
            none="any"
            value={query.action}
            options={actions}
            describe={movementName}
            onPick={(action) => setQuery({ ...query, action })}
          />
          <Pick
            label="Client lies"
            none="any way"
            value={query.position}
            options={positions}
            describe={(p) => sentence(plain(p))}
            onPick={(position) => setQuery({ ...query, position })}
          />
        </Columns>
      </Stack>
      <ul className="list" aria-label="Muscles">
        {found?.map((m) => (
          <li key={m.id}>
            <AriaButton aria-current={m.id === guide?.muscle} onPress={() => choose(m.id)}>
              <span>{m.name}</span>
              <small>{kindWords(m)}</small>
            </AriaButton>
          </li>
        ))}
        {found?.length === 0 && (
          <li className="quiet">No muscle fits. Take a filter off, or look by where it hurts.</li>
        )}
      </ul>
    </>
  );
}
