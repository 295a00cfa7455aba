// The client's own device: a pain drawing on a narrow screen, reached by a
// short-lived code. No sign-in, no name, nothing of the record. What is
// painted stays on the device until it has been handed in.
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../api/client";
import { useFigure, type View, viewName } from "../body/BodySvg";
import { type Drawing, fromStrokes, mirrored, paint, toStrokes } from "../body/drawing";
import { PainBody } from "../body/PainBody";
import { brushOf, firstTool, PainTools } from "../body/PainTools";
import { uuidv7 } from "../core/ids";
import { Button, Card, Choice, Text, Trouble, Waiting } from "../parts/controls";
import { Mark } from "../parts/Shell";

const Page = styled.main`
  min-height: 100%; max-width: 720px; margin: 0 auto; padding: 12px 14px 28px; display: grid; gap: 12px; align-content: start;
  header { display: flex; gap: 10px; align-items: center; font-family: var(--serif); font-size: 19px; font-weight: 600; color: var(--accent); }
  .body { height: min(58vh, 620px); }
  .place { min-height: 20px; font-size: 13px; color: var(--ink-soft); text-align: center; }
`;
const views: View[] = ["front", "back", "left", "right", "head-left", "head-right", "sole-left", "sole-right"];

export default function Pad() {
  const { code } = useParams();
  return code ? <Draw code={code} /> : <Enter />;
}

function Enter() {
  const go = useNavigate();
  const [code, setCode] = useState("");
  const [error, setError] = useState("");
  return (
    <Page>
      <header><Mark /> Mokren</header>
      <Card as="form" onSubmit={(e: React.FormEvent) => {
        e.preventDefault();
        const c = code.replace(/[\s-]/g, "").toUpperCase();
        if (c.length !== 8) setError("The code has eight letters and figures.");
        else go(`/draw/${c}`);
      }} style={{ display: "grid", gap: 12 }}>
        <h1 style={{ fontSize: 24 }}>Your code</h1>
        <Text label="Code from your therapist" name="code" value={code} onChange={(v) => { setCode(v); setError(""); }} error={error} autoComplete="off" />
        <Button type="submit" $kind="main">Go on</Button>
      </Card>
    </Page>
  );
}

interface Kept {
  id: string;
  strokes: Schemas["Stroke"][];
}

/** What was painted under this code before the page was closed. */
function kept(code: string): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(`draw ${code}`) ?? "") as Kept;
    if (k.id && Array.isArray(k.strokes)) return k;
  } catch {
    // nothing kept, or not readable: begin anew
  }
  return { id: uuidv7(), strokes: [] };
}

function Draw({ code }: { code: string }) {
  const [pad, setPad] = useState<Schemas["Pad"]>();
  const [error, setError] = useState<Error>();
  const [first] = useState(() => kept(code));
  const [past, setPast] = useState<Drawing[]>([]);
  const [drawing, setDrawing] = useState<Drawing>(() => fromStrokes(first.strokes));
  const [future, setFuture] = useState<Drawing[]>([]);
  const [tool, setTool] = useState({ ...firstTool, size: 1 });
  const [view, setView] = useState<View>("back");
  const [place, setPlace] = useState("");
  const [sent, setSent] = useState(false);
  const { data: figure } = useFigure(view);
  const open = () => {
    setError(undefined);
    must(api.GET("/api/pad/{code}", { params: { path: { code } } })).then(setPad).catch(setError);
  };
  useEffect(open, [code]);
  const keep = (d: Drawing) => {
    setDrawing(d);
    setSent(false);
    localStorage.setItem(`draw ${code}`, JSON.stringify({ id: first.id, strokes: toStrokes(d) }));
  };
  const change = (d: Drawing) => {
    setPast([...past, drawing]);
    setFuture([]);
    keep(d);
  };
  const send = async () => {
    setError(undefined);
    try {
      await must(api.PUT("/api/pad/{code}/drawings/{id}", { params: { path: { code, id: first.id } }, body: { figure: figure?.version ?? "", strokes: toStrokes(drawing), by: "client" } }));
      localStorage.removeItem(`draw ${code}`);
      setSent(true);
    } catch (e) {
      setError(e as Error);
    }
  };
  if (!pad) {
    return (
      <Page>
        <header><Mark /> Mokren</header>
        {error ? <Trouble error={error} onRetry={error instanceof Problem && error.status === 404 ? undefined : open} /> : <Waiting>Opening…</Waiting>}
      </Page>
    );
  }
  const back = past.at(-1);
  const forth = future.at(-1);
  return (
    <Page>
      <header><Mark /> {pad.practice}</header>
      <h1 style={{ fontSize: 22 }}>Where does it hurt?</h1>
      <Choice label="Seen from" value={view} options={views} onChoose={setView} describe={(v) => viewName[v]} />
      <div className="body">
        <PainBody key={view} view={view} drawing={drawing} brush={brushOf(tool)} size={tool.size} onPlace={setPlace}
          onStroke={(cells) => change(paint(drawing, cells, brushOf(tool)))} />
      </div>
      <p className="place" aria-live="polite">{place}</p>
      <PainTools tool={tool} onTool={setTool} onMirror={drawing.size ? () => change(new Map([...drawing, ...mirrored(drawing)])) : undefined}
        onUndo={back && (() => { setPast(past.slice(0, -1)); setFuture([...future, drawing]); keep(back); })}
        onRedo={forth && (() => { setFuture(future.slice(0, -1)); setPast([...past, drawing]); keep(forth); })} />
      {error && <Trouble error={error} />}
      <Button $kind="main" isDisabled={drawing.size === 0 || sent} onPress={send} style={{ minHeight: 56, fontSize: 18 }}>{sent ? "Handed in. Thank you." : "Hand it in"}</Button>
      {sent && <p role="status" className="quiet">Your therapist has it. You can close this page, or go on painting and hand it in again.</p>}
    </Page>
  );
}
