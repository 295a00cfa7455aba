// For turning the screen round, or for the printer: what was found, plain and
// large, without the words of the trade.
import { useParams } from "react-router";
import { styled } from "styled-components";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { pairs, useFigure, type View } from "../../body/BodySvg";
import { fromStrokes } from "../../body/drawing";
import { Figure } from "../../body/Figure";
import { PaintedOn } from "../../body/PainBody";
import { Arc, type Hand } from "../../charts/Arc";
import { useVisit } from "../../core/useVisit";
import { Button, Trouble, Waiting } from "../../parts/controls";
import { deg, plainMovement } from "../../parts/words";
import { PostureLines } from "./PostureCard";

const Sheet = styled.main`
  min-height: 100%; background: var(--card); padding: 22px 34px 40px; font-size: 21px; line-height: 1.4;
  header { display: flex; gap: 16px; align-items: center; } header h1 { flex: 1; font-size: 38px; }
  .both { display: grid; grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr); gap: 34px; margin-top: 14px; }
  .bodies { display: grid; grid-template-columns: 1fr 1fr; height: 74vh; }
  .arcs { display: grid; grid-template-columns: 1fr 1fr; gap: 18px; } .arcs h2 { font-size: 21px; }
  p + p { margin-top: 8px; }
  @media print { .off { display: none; } .bodies { height: 150mm; } }
`;

export default function Show({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  const { data: front } = useFigure("front");
  const { data: back } = useFigure("back");
  if (error && !visit) return <Trouble error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening…</Waiting>;
  const { state, open, core } = visit;
  const drawing = fromStrokes(state.drawing);
  const count = (pair: string) => [...drawing.keys()].filter((c) => pairs[pair]?.some((v) => c.startsWith(`${v}:`))).length;
  const pair = Object.keys(pairs).reduce((a, b) => (count(b) > count(a) ? b : a), "Body");
  const movements = [...new Set(state.ranges.filter((r) => r.before !== undefined).map((r) => r.movement))].slice(0, 4);
  const tilts = state.posture.filter((p) => ["shoulder-height", "pelvis-height"].includes(p.measure) && p.degrees);
  return (
    <Sheet>
      <header>
        <h1>What we found today</h1>
        <Button className="off" onPress={() => print()}>Print</Button>
        <Link className="off" to={`/visits/${id}`}>Back to the visit</Link>
      </header>
      <div className="both">
        <div className="bodies">
          {(pairs[pair] as [View, View]).map((v) => (
            <Figure key={v} view={v} label={`${v}: the painted pain and the posture lines`} inside={<PaintedOn view={v} drawing={drawing} />}>
              <PostureLines view={v} landmarks={(v === "front" ? front : back)?.landmarks ?? []} posture={state.posture} />
            </Figure>
          ))}
        </div>
        <div>
          {drawing.size > 0 && <p>The painted places are where it hurts{state.interview?.now !== undefined ? `, now ${state.interview.now} of 10` : ""}.</p>}
          {tilts.map((p) => <p key={p.measure}>Your {p.high_side} {p.measure === "shoulder-height" ? "shoulder" : "side of the pelvis"} stands higher, by {Math.abs(p.degrees ?? 0).toFixed(1)}°.</p>)}
          {movements.length === 0 && drawing.size === 0 && tilts.length === 0 && <p>Nothing has been painted or measured in this visit yet.</p>}
          <div className="arcs" style={{ marginTop: 18 }}>
            {movements.map((m) => {
              const of = state.ranges.filter((r) => r.movement === m);
              const usual = core.range(m, undefined, undefined, open.client.age);
              return (
                <section key={m}>
                  <h2>{plainMovement(m)}</h2>
                  <Arc label={plainMovement(m)} reference={usual.reference} flagBelow={usual.flag_below} hands={of.map((r) => ({ side: r.side as Hand["side"], value: r.before, after: r.after }))} />
                  <p>{of.map((r) => `${r.side === "midline" ? "" : `${r.side} `}${deg(r.before)}`).join(", ")}; usual is {deg(usual.reference)}.</p>
                </section>
              );
            })}
          </div>
        </div>
      </div>
    </Sheet>
  );
}
