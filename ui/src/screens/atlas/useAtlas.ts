// What the atlas shows: a muscle by itself or beside another, the layers on the
// body, the place that was touched, the structure to keep off.
import { useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useMainViews } from "../../body/useMainViews";
import type { View } from "../../body/views";
import { useGuide } from "../../core/useGuide";
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
const heightCM = 170;

export type AtlasView = ReturnType<typeof useAtlas>;

function useGuideOf(core: Core, id: string | undefined, side: Side) {
  const known = core.lists.muscles.find((m) => m.id === id)?.id;
  return useGuide(core, known && { muscle: known, side }, heightCM);
}

export function useAtlas(core: Core) {
  const { muscle } = useParams();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const side: Side = params.get("side") === "right" ? "right" : "left";
  const other = params.get("with") ?? undefined;
  const [mode, setMode] = useState<Mode>("By name");
  /** The muscle that was chosen on the body: the body does not turn away from it. */
  const [touched, setTouched] = useState<{ muscle: string; view: View }>();
  const [layers, setLayers] = useState<string[]>([]);
  const [depth, setDepth] = useState(1);
  const [spot, setSpot] = useState<Spot>();
  const [keep, setKeep] = useState<string>();
  const guide = useGuideOf(core, muscle, side);
  const second = useGuideOf(core, other === muscle ? undefined : other, side);
  const choose = (id: MuscleID, s: Schemas["Side"] = side) => void go(`/atlas/${id}?side=${s}`);
  const touch = async (view: View, p: { x: number; y: number }) => {
    if (mode === "By pain") return setSpot({ view, ...p });
    const [m] = (await core.ask("under", { view, x: p.x, y: p.y, height_cm: heightCM })).muscles;
    if (!m) return;
    setTouched({ muscle: m.muscle, view });
    choose(m.muscle, m.side);
  };
  const main = useMainViews(
    core,
    mode === "By pain" || mode === "Keep off" || !guide
      ? { anywhere: true }
      : touched?.muscle === muscle
        ? { aim: touched?.view }
        : { muscle: guide.muscle, side },
  );
  return {
    core,
    all: core.lists.muscles,
    side,
    mode,
    setMode,
    main,
    views: main.views,
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
