// Landmarks: one is named at a time, and touched on a body without names.
import { useState } from "react";
import { Figure, type Mark } from "../../../body/Figure";
import type { Schemas } from "../../../api/client";
import { Card } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { listed, plain, sentence } from "../../../parts/words";
import type { View } from "../../../body/views";
import type { ExerciseProps } from "./props";
import { ExerciseRoom, Heading } from "./Side";

/** So many are asked for in a round. */
const round = 6;

interface Touched {
  view: View;
  x: number;
  y: number;
}

/** "Iliac crest, left"; "3 below C7"; "Soleus, left: lower inner". */
function askedWords(s: Schemas["ClientShown"]) {
  const side = s.side !== "midline" && s.side;
  if (s.muscle) return `${sentence(listed(plain(s.muscle), side))}: ${plain(s.site ?? "")}`;
  const name = sentence(listed(plain(s.landmark ?? ""), side));
  return s.down ? `${s.down} below ${s.landmark}` : name;
}

export function Landmarks({ doing, title }: ExerciseProps) {
  const asked = doing.told.filter((t) => t.shows?.landmark || t.shows?.site);
  const touched = doing.actions.filter((a) => a.action === "touch").length;
  const now = touched < asked.length ? asked.at(-1)?.shows : undefined;
  const [at, setAt] = useState<Touched[]>([]);
  const view = (now?.view ?? asked.at(-1)?.shows?.view ?? "back") as View;
  const [cursor, setCursor] = useState<{ x: number; y: number }>();
  const touch = (p: { x: number; y: number }) => {
    if (!now) return;
    setAt([...at, { view, ...p }]);
    setCursor(undefined);
    void doing.act({ action: "touch", view, ...p });
  };
  const marks: Mark[] = at
    .filter((t) => t.view === view)
    .map((t, i) => ({ id: String(i), x: t.x, y: t.y, grade: 0, kind: "spot", label: `Touched ${i + 1}` }));
  return (
    <ExerciseRoom $side="400px">
      <div className="pane">
        <Figure key={view} view={view} marks={marks} cursor={cursor} onAim={setCursor} onTouch={touch} />
      </div>
      <div className="side">
        <Heading title={title} doing={doing} can={!now} />
        <Card aria-live="assertive" data-asked={now?.landmark}>
          <h2>{now ? `Touch landmark ${touched + 1} of ${round}` : "All were touched"}</h2>
          <Said $lead>{now ? askedWords(now) : "Finish, and see how near you were."}</Said>
          <Said className="quiet" $small>
            The body comes closer with plus, two fingers or the wheel. Nothing is said until the end.
          </Said>
        </Card>
      </div>
    </ExerciseRoom>
  );
}
