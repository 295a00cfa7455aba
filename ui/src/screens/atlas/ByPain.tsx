import { useMemo } from "react";
import { Button as AriaButton } from "react-aria-components";
import type { Schemas } from "../../api/client";
import { useLattice } from "../../body/lattice";
import { type View, viewName } from "../../body/views";
import type { Core } from "../../core/core";
import { useAsk } from "../../core/useAsk";
import { Search } from "../../parts/controls";
import { Stack } from "../../parts/layout";
import { one, plain, sentence } from "../../parts/words";
import type { AtlasView, Spot } from "./useAtlas";

/** So many matches are looked through. */
const most = 40;

/** Muscles whose usual pattern covers a place, nearest first. */
export function ByPain({ atlas: { core, views, spot, setSpot, guide, side, choose } }: { atlas: AtlasView }) {
  const hurts = useAsk(core, "hurts", spot && { view: spot.view, x: spot.x, y: spot.y });
  return (
    <>
      <Places core={core} views={views} hurts={hurts} onSpot={setSpot} />
      <ul className="list" aria-label="Muscles that usually send pain there">
        {hurts?.matches.slice(0, most).map((m) => (
          <li key={m.muscle + m.side}>
            <AriaButton
              aria-current={m.muscle === guide?.muscle && m.side === side}
              onPress={() => choose(m.muscle, m.side)}
            >
              <span>
                {m.name}, {m.side}
              </span>
              <small>
                {m.essential ? "usual" : "spill-over"}
                {m.distance_mm > 0 ? `, ${one(m.distance_mm)} mm off` : ""}
              </small>
              <i style={{ width: `${Math.max(4, m.score * 100)}%` }} />
            </AriaButton>
          </li>
        ))}
      </ul>
    </>
  );
}

interface PlacesProps {
  core: Core;
  views: View[];
  hurts?: Schemas["HurtsOut"];
  onSpot: (s: Spot) => void;
}

/** Every region of the shown views by name, for those who do not touch. */
function Places({ core, views, hurts, onSpot }: PlacesProps) {
  const [one = "front", two = one] = views;
  const a = useRegions(one);
  const b = useRegions(two);
  const all = useMemo(() => new Map([...a, ...b].map((p) => [keyOf(p), p])), [a, b]);
  return (
    <Stack>
      <Search
        label="Place"
        none="touch the body, or choose"
        value={undefined}
        options={[...all.keys()]}
        describe={(k) => nameOf(all.get(k))}
        onPick={async (k) => {
          const p = k && all.get(k);
          const at = p && (await middleOf(core, p));
          if (at) onSpot({ view: p.view, ...at });
        }}
      />
      <p aria-live="polite">
        <b>{hurts?.region ? withSide(hurts.region, hurts.side) : ""}</b>
      </p>
    </Stack>
  );
}

interface Place {
  view: View;
  region: Schemas["RegionID"];
  side: Schemas["Side"];
}

const keyOf = (p: Place) => `${p.view}|${p.region}|${p.side}`;
const withSide = (region: string, side: string) =>
  `${sentence(plain(region))}${side === "midline" ? "" : `, ${side}`}`;
const nameOf = (p: Place | undefined) =>
  p ? `${withSide(p.region, p.side)} (${viewName[p.view].toLowerCase()})` : "";

/** The regions of a view, each side for itself, by name. */
function useRegions(view: View): Place[] {
  const { data: l } = useLattice(view);
  return useMemo(() => {
    const out = new Map<string, Place>();
    for (const c of l?.cells ?? []) {
      const region = l?.regions[c.g];
      if (region) out.set(region + c.s, { view, region, side: c.s });
    }
    return [...out.values()].sort((x, y) => keyOf(x).localeCompare(keyOf(y)));
  }, [view, l]);
}

/** The cell nearest the middle of a region, so that a bent one is still hit. */
async function middleOf(core: Core, { view, region, side }: Place) {
  const found = await core.ask("cells", { view, regions: [{ region, side }] });
  const cells = found.cells.map(([x = 0, y = 0]) => ({ x, y }));
  if (!cells.length) return undefined;
  const mx = cells.reduce((s, c) => s + c.x, 0) / cells.length;
  const my = cells.reduce((s, c) => s + c.y, 0) / cells.length;
  const off = (c: { x: number; y: number }) => Math.hypot(c.x - mx, c.y - my);
  return cells.sort((p, q) => off(p) - off(q))[0];
}
