// For turning the screen round, or for the printer: what was found, plain and
// large, without the words of the trade.
import { useParams } from "react-router";
import { styled } from "styled-components";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { pairs, type View } from "../../body/BodySvg";
import { fromStrokes } from "../../body/drawing";
import { Figure } from "../../body/Figure";
import { PaintedOn } from "../../body/PainBody";
import { PostureLines } from "../../body/PostureLines";
import { Arc, type Hand } from "../../charts/Arc";
import { useVisit } from "../../core/useVisit";
import { Button, Trouble, Waiting } from "../../parts/controls";
import { deg, plainMovement, sentence } from "../../parts/words";

const Sheet = styled.main`
  min-height: 100%;
  background: var(--card);
  padding: 22px 34px 40px;
  font-size: 21px;
  line-height: 1.4;
  header {
    display: flex;
    gap: 16px;
    align-items: center;
  }
  header h1 {
    flex: 1;
    font-size: 38px;
  }
  .both {
    display: grid;
    grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr);
    gap: 34px;
    margin-top: 14px;
  }
  .bodies {
    display: grid;
    grid-template-columns: 1fr 1fr;
    height: calc(100vh - 120px);
  }
  .arcs {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 18px;
  }
  .arcs h2 {
    font-size: 21px;
  }
  p + p {
    margin-top: 8px;
  }
  @media print {
    .off {
      display: none;
    }
    .bodies {
      height: 150mm;
    }
  }
`;

/** A posture reading without the words of the trade; small differences that only
 * the practice needs are left out. */
function inWords(p: Schemas["Posture"], flagged: boolean, limit: (id: string) => number): string[] {
  const deg = Math.abs(p.degrees ?? 0).toFixed(1);
  switch (p.measure) {
    case "shoulder-height":
      return p.degrees ? [`Your ${p.high_side} shoulder stands higher, by ${deg}°.`] : [];
    case "pelvis-height":
      return p.degrees ? [`Your ${p.high_side} side of the pelvis stands higher, by ${deg}°.`] : [];
    case "craniovertebral-angle":
      return flagged ? ["Your head stands in front of your shoulders."] : [];
    case "pelvic-tilt": {
      const off = (p.degrees ?? 0) - limit("pelvic-tilt-usual");
      return Math.abs(off) > limit("pelvic-tilt")
        ? [`Your pelvis tips ${off > 0 ? "forward" : "back"} on the ${p.side}.`]
        : [];
    }
    case "shoulder-girdle-rotation":
      return p.high_side ? [`Your ${p.high_side} shoulder stands forward.`] : [];
    case "pelvis-rotation":
      return p.high_side ? [`Your pelvis is turned: the ${p.high_side} side stands forward.`] : [];
    case "side-curve":
      return p.high_side ? [`Your back curves toward the ${p.high_side}.`] : [];
    case "lumbar-curve":
      return p.kind === "hinge" ? ["Your low back bends at one place, not evenly."] : [];
  }
  return [];
}

export default function Show({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  if (error && !visit) return <Trouble error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening…</Waiting>;
  const { state, open, core } = visit;
  const drawing = fromStrokes(state.drawing);
  const count = (pair: string) =>
    [...drawing.keys()].filter((c) => pairs[pair]?.some((v) => c.startsWith(`${v}:`))).length;
  const pair = Object.keys(pairs).reduce((a, b) => (count(b) > count(a) ? b : a), "Body");
  const movements = [
    ...new Set(state.ranges.filter((r) => r.before !== undefined).map((r) => r.movement)),
  ].slice(0, 4);
  const limit = (id: string) =>
    open.context.thresholds[id] ?? core.thresholds().find((t) => t.id === id)?.value ?? 0;
  const stance = state.posture.flatMap((p, i) => inWords(p, state.posture_flags[i]?.flagged ?? false, limit));
  const seen = [
    ...new Set(
      state.signs.map((x) =>
        core
          .signs()
          .find((s) => s.sign === x.sign)
          ?.name.toLowerCase(),
      ),
    ),
  ].filter(Boolean);
  return (
    <Sheet>
      <header>
        <h1>What we found today</h1>
        <Button className="off" onPress={() => print()}>
          Print
        </Button>
        <Link className="off" to={`/visits/${id}`}>
          Back to the visit
        </Link>
      </header>
      <div className="both">
        <div className="bodies">
          {(pairs[pair] as [View, View]).map((v) => (
            <Figure
              key={v}
              view={v}
              label={`${v}: the painted pain and the posture lines`}
              inside={<PaintedOn view={v} drawing={drawing} />}
            >
              <PostureLines view={v} posture={state.posture} flags={state.posture_flags} />
            </Figure>
          ))}
        </div>
        <div>
          {drawing.size > 0 && (
            <p>
              The painted places are where it hurts
              {state.interview?.now !== undefined ? `, now ${state.interview.now} of 10` : ""}.
            </p>
          )}
          {stance.map((x) => (
            <p key={x}>{x}</p>
          ))}
          {seen.length > 0 && <p>In the squat: {seen.join(", ")}.</p>}
          {movements.length === 0 && drawing.size === 0 && stance.length === 0 && (
            <p>Nothing has been painted or measured in this visit yet.</p>
          )}
          <div className="arcs" style={{ marginTop: 18 }}>
            {movements.map((m) => {
              const of = state.ranges.filter((r) => r.movement === m);
              const usual = core.range(m, undefined, undefined, open.client.age);
              return (
                <section key={m}>
                  <h2>{plainMovement(m)}</h2>
                  <Arc
                    label={plainMovement(m)}
                    reference={usual.reference}
                    flagBelow={usual.flag_below}
                    hands={of.map((r) => ({ side: r.side as Hand["side"], value: r.before, after: r.after }))}
                  />
                  <p>
                    {sentence(
                      of.map((r) => `${r.side === "midline" ? "" : `${r.side} `}${deg(r.before)}`).join(", "),
                    )}
                    ; usual is {deg(usual.reference)}.
                  </p>
                </section>
              );
            })}
          </div>
        </div>
      </div>
    </Sheet>
  );
}
