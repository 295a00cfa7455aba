// For turning the screen round, or for the printer: what was found, plain and
// large, without the words of the trade.
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { fromStrokes, paintedOn } from "../../../body/drawing";
import { Figure } from "../../../body/Figure";
import { PaintedOn } from "../../../body/Painted";
import { toMark } from "../../../body/marks";
import { PostureLines } from "../../../body/PostureLines";
import { BodyViews } from "../../../body/BodyViews";
import { useMainViews } from "../../../body/useMainViews";
import { type View, viewName } from "../../../body/views";
import { Arc } from "../../../charts/Arc";
import { useAsk } from "../../../core/useAsk";
import { type LiveVisit, useVisit } from "../../../core/useVisit";
import { Button, ErrorPanel, Waiting } from "../../../parts/controls";
import { deg, one, plain, plainMovement, sentence } from "../../../parts/words";
import { pointName } from "../pointWords";
import { seenSigns, stanceOf } from "./inWords";
import { phone, upright } from "../../../theme";

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
    height: calc(100vh - 120px);
  }
  .arcs {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 18px;
    margin-top: 18px;
  }
  .arcs h2 {
    font-size: 21px;
  }
  .found {
    margin: 8px 0;
    padding-left: 24px;
  }
  .found li + li {
    margin-top: 6px;
  }
  p + p {
    margin-top: 8px;
  }
  ${upright} {
    .both {
      grid-template-columns: minmax(0, 1fr);
    }
    .bodies {
      height: 56vh;
    }
  }
  ${phone} {
    padding: 12px;
    header {
      flex-wrap: wrap;
    }
    header h1 {
      flex: 0 0 100%;
      font-size: var(--t5);
    }
    .arcs {
      grid-template-columns: minmax(0, 1fr);
    }
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

export default function Show({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  if (error && !visit) return <ErrorPanel error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening…</Waiting>;
  return (
    <Sheet>
      <header>
        <h1>What we found today</h1>
        <Button className="off" onPress={() => print()}>
          Print
        </Button>
        <Link className="off stands" to={`/visits/${id}`}>
          Back to the visit
        </Link>
      </header>
      <div className="both">
        <Bodies visit={visit} />
        <Words visit={visit} />
      </div>
    </Sheet>
  );
}

function Bodies({ visit: { state, core } }: { visit: LiveVisit }) {
  const drawing = fromStrokes(state.drawing);
  const main = useMainViews(core, { points: state.points.map((p) => p.view), painted: paintedOn(drawing) });
  const marksOn = (view: View) => state.points.filter((p) => p.view === view).map((p) => toMark(p));
  return (
    <div className="bodies">
      <BodyViews main={main} marks={marksOn} drawing={drawing}>
        {(v) => (
          <Figure
            key={v}
            view={v}
            marks={marksOn(v)}
            label={`${viewName[v]}: the painted pain, the points and the posture lines`}
            inside={<PaintedOn view={v} drawing={drawing} />}
          >
            <PostureLines view={v} posture={state.posture} flags={state.posture_flags} />
          </Figure>
        )}
      </BodyViews>
    </div>
  );
}

/** So many movements fit beside the body. */
const shown = 4;

function Words({ visit }: { visit: LiveVisit }) {
  const { state } = visit;
  const painted = state.drawing.length > 0;
  const before = state.ranges.filter((r) => r.before !== undefined);
  const movements = [...new Set(before.map((r) => r.movement))].slice(0, shown);
  const stance = stanceOf(visit);
  const seen = seenSigns(visit);
  return (
    <div>
      {painted && (
        <p>
          The painted places are where it hurts
          {state.interview?.now !== undefined ? `, now ${state.interview.now} of 10` : ""}.
        </p>
      )}
      {stance.map((x) => (
        <p key={x}>{x}</p>
      ))}
      {seen.length > 0 && <p>In the squat: {seen.join(", ")}.</p>}
      <Found visit={visit} />
      {movements.length === 0 && !painted && stance.length + state.points.length === 0 && (
        <p>Nothing has been painted or measured in this visit yet.</p>
      )}
      <div className="arcs">
        {movements.map((m) => (
          <Movement key={m} movement={m} visit={visit} />
        ))}
      </div>
    </div>
  );
}

/** The points, where each is felt, what was pressed and what became of it, without the words of the
 * trade. */
function Found({ visit }: { visit: LiveVisit }) {
  const { points, holds } = visit.state;
  if (points.length === 0) return null;
  return (
    <ul className="found">
      {points.map((p) => {
        const pressed = holds.some((h) => h.point === p.point && h.status !== "aside");
        const felt = (p.referral ?? []).map((r) => plain(r));
        const [before, after] = [p.nprs, p.after_nprs];
        return (
          <li key={p.point} data-found={p.point}>
            <b>{pointName(visit.core, p)}</b>
            {before !== undefined && `: ${one(before)} of 10 when pressed`}
            {pressed &&
              (after === undefined ? ". Treated today" : `. Treated today: ${one(after)} of 10 now`)}
            {felt.length > 0 && `. Felt in: ${[...new Set(felt)].join(", ")}`}.
          </li>
        );
      })}
    </ul>
  );
}

function Movement({ movement, visit }: { movement: Schemas["MovementID"]; visit: LiveVisit }) {
  const { state, core, open } = visit;
  const of = state.ranges.filter((r) => r.movement === movement);
  const usual = useAsk(core, "range", { movement, age: open.client.age });
  const readings = of.map((r) => `${r.side === "midline" ? "" : `${r.side} `}${deg(r.before)}`);
  if (!usual) return null;
  return (
    <section>
      <h2>{plainMovement(movement)}</h2>
      <Arc
        label={plainMovement(movement)}
        reference={usual.reference}
        flagBelow={usual.flag_below}
        hands={of.map((r) => ({ side: r.side, value: r.before, after: r.after }))}
      />
      <p>
        {sentence(readings.join(", "))}; usual is {deg(usual.reference)}.
      </p>
    </section>
  );
}
