// The pain drawing on the client's own device.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { type Drawing, fromStrokes, mirrored, paint, toStrokes } from "../../body/drawing";
import { PainBody } from "../../body/PainBody";
import { brushOf, firstTool, PainTools } from "../../body/PainTools";
import { allViews, type View, viewName } from "../../body/views";
import { Choice } from "../../parts/controls";

interface Props {
  strokes: Schemas["Stroke"][];
  onStrokes: (s: Schemas["Stroke"][]) => void;
}

export function Paint({ strokes, onStrokes }: Props) {
  const [drawing, setDrawing] = useState<Drawing>(() => fromStrokes(strokes));
  const [past, setPast] = useState<Drawing[]>([]);
  const [future, setFuture] = useState<Drawing[]>([]);
  const [tool, setTool] = useState({ ...firstTool, size: 1 });
  const [view, setView] = useState<View>("back");
  const [place, setPlace] = useState("");
  const keep = (d: Drawing) => {
    setDrawing(d);
    onStrokes(toStrokes(d));
  };
  const change = (d: Drawing) => {
    setPast([...past, drawing]);
    setFuture([]);
    keep(d);
  };
  const back = past.at(-1);
  const forth = future.at(-1);
  return (
    <>
      <h1>Where does it hurt?</h1>
      <Choice
        label="Seen from"
        value={view}
        options={allViews}
        onChoose={setView}
        describe={(v) => viewName[v]}
      />
      <div className="body">
        <PainBody
          key={view}
          view={view}
          drawing={drawing}
          brush={brushOf(tool)}
          size={tool.size}
          onPlace={setPlace}
          onStroke={(cells) => change(paint(drawing, cells, brushOf(tool)))}
        />
      </div>
      <p className="place" aria-live="polite">
        {place}
      </p>
      <PainTools
        tool={tool}
        onTool={setTool}
        onMirror={drawing.size ? () => change(new Map([...drawing, ...mirrored(drawing)])) : undefined}
        onUndo={
          back &&
          (() => {
            setPast(past.slice(0, -1));
            setFuture([...future, drawing]);
            keep(back);
          })
        }
        onRedo={
          forth &&
          (() => {
            setFuture(future.slice(0, -1));
            setPast([...past, drawing]);
            keep(forth);
          })
        }
      />
    </>
  );
}
