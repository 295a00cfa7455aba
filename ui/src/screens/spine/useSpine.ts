// The level that is chosen, by what, and from where one counts.
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { useFigure } from "../../body/views";
import { useAsk } from "../../core/useAsk";
import type { Core } from "../../core/core";
import { useBeside, landmarks, levels } from "./levels";

type Level = NonNullable<Schemas["LevelIn"]["level"]>;
type Spots = Schemas["FigureView"]["landmarks"];
const nowhere: Spots = [];

export type Spine = ReturnType<typeof useSpine>;

export function useSpine(core: Core, finger: number) {
  const all = useFigure("back").data?.landmarks ?? nowhere;
  const [level, setLevel] = useState<Level>("L4");
  const [by, setBy] = useState<string | undefined>("iliac-crest");
  const [from, setFrom] = useState<string>();
  const found = useAsk(core, "level", by ? { landmark: by } : undefined);
  const beside = useBeside(core, level, finger);
  const tips = useMemo(() => all.filter((l) => levels.includes(l.id)), [all]);
  const choose = (l: string, landmark?: string) => {
    setLevel(l as Level);
    setBy(landmark);
  };
  const byLandmark = async (id: string) => choose((await core.ask("level", { landmark: id })).level, id);
  const touch = (p: { x: number; y: number }) => {
    // A touch on one of the landmarks means it; elsewhere the nearest tip.
    const near = all
      .filter((l) => landmarks.some((m) => m.id === l.id) && l.side !== "midline")
      .find((l) => Math.hypot(l.x - p.x, l.y - p.y) < 12);
    const tip = [...tips].sort((a, b) => Math.abs(a.y - p.y) - Math.abs(b.y - p.y))[0];
    if (near) void byLandmark(near.id);
    else if (tip) choose(tip.id);
  };
  return {
    level,
    by,
    from,
    found,
    beside,
    tips,
    /** The landmark that was chosen, on both sides. */
    marks: all.filter((l) => l.id === by),
    here: tips.find((t) => t.id === level),
    /** Levels from where one counts; positive is down. */
    steps: from ? levels.indexOf(level) - levels.indexOf(from) : 0,
    count: () => setFrom(level),
    choose,
    byLandmark,
    touch,
  };
}
