// The pain drawing of the visit: painted here, or by the client on an own
// device, and laid beside an earlier one.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { byView, type Drawing, fromStrokes, mirrored, toStrokes } from "../../body/drawing";
import { PainTools, type Tool } from "../../body/PainTools";
import { Button, Card, Choice, Trouble } from "../../parts/controls";
import { day, one, plain, sentence } from "../../parts/words";
import { Story } from "./Story";
import type { StepProps } from "./Visit";

interface Props extends StepProps {
  me: Schemas["Me"];
  drawing: Drawing;
  figure: string;
  tool: Tool;
  setTool: (t: Tool) => void;
  compare?: string;
  setCompare: (visit: string | undefined) => void;
  height: number;
}

/** "Neck angle, left" for a list of regions. */
const inWords = (list: Schemas["Covered"][]) => (list.length ? list.slice(0, 6).map((c) => `${plain(c.region)}${c.side === "midline" ? "" : ` ${c.side}`}`).join(", ") : "nothing");
const signed = (v: number) => `${v > 0 ? "+" : v < 0 ? "−" : ""}${Math.abs(Math.round(v))}`;

export function DrawStep({ visit, me, drawing, figure, tool, setTool, compare, setCompare, height }: Props) {
  const { core, open, write, undo, redo } = visit;
  const earlier = open.earlier_drawings.find((d) => d.visit === compare);
  const now = useMemo(() => core.drawing({ before: earlier ? byView(fromStrokes(earlier.strokes)) : {}, after: byView(drawing), height_cm: height }), [core, earlier, drawing, height]);
  const lay = (strokes: Schemas["Stroke"][], by: "therapist" | "client" = "therapist") => strokes.length > 0 && write("drawing-painted", { figure, strokes, by });
  return (
    <>
      <Card>
        <h2>Where does it hurt?</h2>
        <p className="quiet" style={{ margin: "4px 0 12px" }}>Paint on the body, or let the client paint. Ask openly; do not suggest.</p>
        <PainTools tool={tool} onTool={setTool} onUndo={undo} onRedo={redo} onMirror={drawing.size ? () => lay(toStrokes(mirrored(drawing))) : undefined} />
      </Card>
      <Card data-drawing={Math.round(now.after_cm2)}>
        <h2>{drawing.size ? `${one(now.after_cm2)} cm² painted` : "Nothing painted yet"}</h2>
        {drawing.size > 0 && <p style={{ marginTop: 4 }}>{sentence(inWords(now.after_regions))}.</p>}
        {open.earlier_drawings.length > 0 && (
          <div style={{ marginTop: 12 }}>
            <Choice label="Lay over an earlier drawing" value={compare ?? "none"} options={["none", ...open.earlier_drawings.slice(0, 4).map((d) => d.visit)]}
              describe={(v) => (v === "none" ? "none" : day(open.earlier_drawings.find((d) => d.visit === v)?.starts_at ?? "", me.time_zone))} onChoose={(v) => setCompare(v === "none" ? undefined : v)} />
          </div>
        )}
        {earlier && (
          <dl className="compare" data-compare>
            <dt>Area</dt><dd>{one(now.before_cm2)} → {one(now.after_cm2)} cm²{now.change_percent === undefined ? "" : `, ${signed(now.change_percent)} %`}</dd>
            <dt>Overlap</dt><dd>{Math.round(now.dice * 100)} % <span className="quiet">of both drawings together</span></dd>
            <dt>New</dt><dd>{one(now.new_cm2)} cm²: {inWords(now.new_regions)}</dd>
            <dt>Gone</dt><dd>{one(now.gone_cm2)} cm²: {inWords(now.gone_regions)}</dd>
          </dl>
        )}
      </Card>
      <Story visit={visit} />
      <OwnDevice visit={open.visit.id} first={open.entries} onTake={(s) => lay(s, "client")} height={height} area={(s) => core.drawing({ before: {}, after: byView(fromStrokes(s)), height_cm: height }).after_cm2} />
    </>
  );
}

function OwnDevice({ visit, first, onTake, area }: { visit: string; first: Schemas["Entry"][]; onTake: (s: Schemas["Stroke"][]) => void; height: number; area: (s: Schemas["Stroke"][]) => number }) {
  const queries = useQueryClient();
  const [link, setLink] = useState<Schemas["NewLink"]>();
  const [error, setError] = useState<Error>();
  const entries = useQuery({
    queryKey: ["entries", visit],
    initialData: { items: first },
    refetchInterval: 4000,
    queryFn: () => must(api.GET("/api/visits/{id}/entries", { params: { path: { id: visit } } })),
  });
  const settle = async (e: Schemas["Entry"], take: boolean) => {
    try {
      if (take) onTake(e.strokes);
      await must(api.POST("/api/visits/{id}/entries/{entry}/taken", { params: { path: { id: visit, entry: e.id } } }));
      await queries.invalidateQueries({ queryKey: ["entries", visit] });
    } catch (x) {
      setError(x as Error);
    }
  };
  const ask = async () => {
    setError(undefined);
    try {
      setLink(await must(api.POST("/api/visits/{id}/drawing-link", { params: { path: { id: visit } } })));
    } catch (x) {
      setError(x as Error);
    }
  };
  const minutes = link ? Math.max(0, Math.round((Date.parse(link.expires_at) - Date.now()) / 60000)) : 0;
  return (
    <Card>
      <h2>On the client's own device</h2>
      {error && <Trouble error={error} />}
      {entries.data.items.map((e) => (
        <div key={e.id} className="caution" role="status" style={{ display: "flex", gap: 10, alignItems: "center", marginTop: 8 }}>
          <span style={{ flex: 1 }}>The client has drawn {one(area(e.strokes))} cm².</span>
          <Button onPress={() => settle(e, false)}>Leave it out</Button>
          <Button $kind="main" onPress={() => settle(e, true)}>Take it in</Button>
        </div>
      ))}
      {link ? (
        <p style={{ marginTop: 8 }}>
          Open <b>{location.host}/draw</b> there and enter<br />
          <span data-code style={{ font: "640 34px/1.3 var(--text)", letterSpacing: "0.12em" }}>{link.code.slice(0, 4)} {link.code.slice(4)}</span>
          <br /><span className="quiet">Good for {minutes} minutes. It shows no name and nothing of the record.</span>
        </p>
      ) : (
        <Button style={{ marginTop: 8 }} onPress={ask}>Make a code</Button>
      )}
    </Card>
  );
}
