// The session: minutes, a timeline of how the client lies, and the steps in
// their order.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Card, Num } from "../../../parts/controls";
import { Columns, Notice, Row, Said } from "../../../parts/layout";
import { count } from "../../../parts/words";
import { useBeginSequence, useSuggested } from "../../sequence/useBeginSequence";
import type { Body } from "../body/useBody";
import type { StepProps } from "../StepProps";
import type { StepName } from "../steps";
import { FixedBlocks } from "./FixedBlocks";
import { Steps } from "./Steps";
import { Timeline } from "./Timeline";
import { type SessionPlan, usePlan } from "./usePlan";

const Head = styled(Row)`
  .minutes {
    width: 128px;
  }
`;

interface Props extends StepProps {
  body: Body;
  work: Schemas["Working"];
  go: (step: StepName) => void;
}

export function Session(props: Props) {
  const p = usePlan(props.visit);
  return p && <Planned p={p} {...props} />;
}

function Planned({ p, visit, body, work, go }: Props & { p: SessionPlan }) {
  const { plan } = p;
  const treated = plan.steps.filter((s) => s.kind === "treat").length;
  return (
    <Card data-plan data-accepted={plan.accepted}>
      <h2>The session</h2>
      <Head $wrap $gap={3} $align="end">
        <div className="minutes">
          <Num
            label="Time left (min)"
            value={p.minutes}
            min={5}
            max={240}
            step={5}
            onCommit={(v) => v !== undefined && p.setMinutes(v)}
          />
        </div>
        {!plan.accepted && (
          <Button $kind="main" $large onPress={p.accept}>
            Use this plan
          </Button>
        )}
        {plan.accepted && <Start visit={visit} go={go} />}
        {(p.made.order?.length ?? 0) > 0 && <Button onPress={p.best}>Best order again</Button>}
      </Head>
      {plan.says && (
        <Notice role="status">
          <b>{plan.says}</b>
        </Notice>
      )}
      {plan.over_min !== undefined && plan.over_min > 0 && !plan.says && (
        <Said $tone="warn">This order is {plan.over_min} minutes longer than there is time.</Said>
      )}
      <Timeline visit={visit} plan={plan} minutes={p.minutes} selected={body.selected} onSelect={body.open} />
      <p className="quiet">
        {count(treated, "point")}, {count(plan.turns, "turn")}, {Math.round(plan.minutes)} of{" "}
        {Math.max(0, Math.round(p.minutes - plan.gone_min))} minutes{plan.gone_min > 0 ? " left" : ""}.
      </p>
      {plan.notes.map((n) => (
        <Said key={n} className="quiet" $small>
          {n}
        </Said>
      ))}
      <FixedBlocks blocks={p.made.blocks} onChange={p.setBlocks} />
      <Around visit={visit} p={p} />
      <Steps visit={visit} body={body} work={work} p={p} />
      <LeftOut visit={visit} body={body} plan={p} />
    </Card>
  );
}

/** The whole session runs from here: the warm-up for the planned points first, where there is one. */
function Start({ visit, go }: StepProps & Pick<Props, "go">) {
  const warmUp = useSuggested(visit, "warm-up");
  const { begin, refused } = useBeginSequence(visit);
  return (
    <>
      {warmUp && (
        <Button $kind="main" $large onPress={() => begin(warmUp)}>
          Start session: {warmUp.name.toLowerCase()}
        </Button>
      )}
      <Button $kind={warmUp ? "plain" : "main"} $large onPress={() => go("press")}>
        Begin pressing
      </Button>
      {refused && (
        <Said role="alert" $tone="stop">
          {refused}
        </Said>
      )}
    </>
  );
}

/** What fills the blocks around the holds: the sequences for these points, and how long they
 * take. The plan counts its blocks as bare minutes until it is told to take theirs. */
function Around({ visit, p }: StepProps & { p: SessionPlan }) {
  const of = {
    warm_up: useSuggested(visit, "warm-up"),
    lengthen: useSuggested(visit, "lengthen"),
    close: useSuggested(visit, "close"),
  };
  const filled = (["warm_up", "lengthen", "close"] as const).flatMap((block) => {
    const o = of[block];
    return o ? [{ block, name: o.name, minutes: Math.round(o.laid.seconds / 60) }] : [];
  });
  if (filled.length === 0) return null;
  const same = filled.every((f) => p.made.blocks?.[f.block] === f.minutes);
  return (
    <Row $wrap data-around>
      <Said className="quiet">
        Around the holds: {filled.map((f) => `${f.name}, ${f.minutes} min`).join(" · ")}
      </Said>
      {!same && (
        <Button
          onPress={() =>
            p.setBlocks({
              ...p.made.blocks,
              ...Object.fromEntries(filled.map((f) => [f.block, f.minutes])),
            })
          }
        >
          Use these minutes
        </Button>
      )}
    </Row>
  );
}

/** What is not in it, and why; what is only left out can be put in. */
function LeftOut({ visit, body, plan: p }: StepProps & { body: Body; plan: SessionPlan }) {
  const list = p.plan.left_out;
  if (list.length === 0) return null;
  return (
    <>
      <h3>Not in today's plan</h3>
      {list.map((l) => {
        const point = visit.state.points.find((x) => x.point === l.point);
        return (
          <Columns key={l.point} $cols="minmax(0, 1fr) auto" $align="center" data-left-out={l.point}>
            <span>
              <b>{point && body.nameOf(point)}</b>
              <br />
              <span className="quiet small">{l.reason}</span>
            </span>
            {!l.never && <Button onPress={() => p.add(l.point)}>Add to plan</Button>}
          </Columns>
        );
      })}
    </>
  );
}
