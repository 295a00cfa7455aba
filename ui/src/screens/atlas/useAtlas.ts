// What the atlas shows: a muscle by itself or beside another, the layers on the
// body, the place that was touched, the structure to keep off.
import { useMemo, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { pairOf, pairs, type View } from "../../body/views";
import type { Core } from "../../core/core";
import type { Mode } from "./modes";

type MuscleID = Schemas["MuscleID"];
export type Side = "left" | "right";
export interface Spot {
  view: View;
  x: number;
  y: number;
}

/** The figure's own height: the atlas is of nobody in particular. */
export const heightCM = 170;

export type AtlasView = ReturnType<typeof useAtlas>;

function guideOf(core: Core, all: Schemas["AtlasEntry"][], id: string | undefined, side: Side) {
  const known = all.find((m) => m.id === id)?.id;
  return known && core.palpate(known, side, heightCM);
}

export function useAtlas(core: Core) {
  const { muscle } = useParams();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const side: Side = params.get("side") === "right" ? "right" : "left";
  const other = params.get("with") ?? undefined;
  const [mode, setMode] = useState<Mode>("By name");
  const [pair, setPair] = useState("Body");
  const [layers, setLayers] = useState<string[]>([]);
  const [depth, setDepth] = useState(1);
  const [spot, setSpot] = useState<Spot>();
  const [keep, setKeep] = useState<string>();
  const all = useMemo(() => core.atlas({}), [core]);
  const guide = useMemo(() => guideOf(core, all, muscle, side), [core, all, muscle, side]);
  const second = useMemo(
    () => (other === muscle ? undefined : guideOf(core, all, other, side)),
    [core, all, other, muscle, side],
  );
  /** Opens a muscle; the body turns to it unless it was chosen on the body. */
  const choose = (id: MuscleID, s: Schemas["Side"] = side, turn = true) => {
    const view = core.palpate(id, s, heightCM).sites[0]?.view;
    if (view && turn) setPair(pairOf(view));
    void go(`/atlas/${id}?side=${s}`);
  };
  const touch = (view: View, p: { x: number; y: number }) => {
    if (mode === "By pain") return setSpot({ view, ...p });
    const m = core.under(view, p.x, p.y, heightCM).muscles[0];
    if (m) choose(m.muscle, m.side, false);
  };
  const views: [View, View] = pairs[pair] ?? ["front", "back"];
  return {
    core,
    all,
    side,
    mode,
    setMode,
    pair,
    setPair,
    views,
    layers,
    setLayers,
    depth,
    setDepth,
    spot,
    setSpot,
    keep,
    setKeep,
    guide,
    second,
    choose,
    touch,
    setSide: (s: Side) => setParams({ side: s, ...(other ? { with: other } : {}) }),
    setOther: (m: string | undefined) => setParams(m ? { side, with: m } : { side }),
  };
}
