// The points in their order: moved by keys or buttons, held in, dropped, and
// given another protocol.
import { ArrowDown, ArrowUp, Lock, LockOpen, X } from "lucide-react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { positionName } from "../../../parts/words";
import type { Body } from "../body/useBody";
import { judgedAs } from "../find/PointList";
import type { StepProps } from "../StepProps";
import { ProtocolPick } from "./ProtocolPick";
import type { SessionPlan } from "./usePlan";

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr) auto;
    gap: var(--s1) var(--s2);
    align-items: center;
    padding: var(--s2) 0;
    border-top: 1px solid var(--line-soft);
    border-radius: 6px;
  }
  li[data-on="true"] {
    background: var(--point-soft);
  }
  .n {
    font: 640 var(--t3) var(--text);
    color: var(--point);
    text-align: center;
  }
  li > button {
    text-align: left;
    border-color: transparent;
    padding-inline: 6px;
  }
  .does {
    display: flex;
    gap: 2px;
  }
  .does button {
    width: var(--touch);
    padding: 0;
    display: grid;
    place-items: center;
    border-color: transparent;
    background: none;
  }
  .turn {
    grid-column: 2 / -1;
    font-size: var(--t1);
    color: var(--ink-soft);
  }
  .below {
    grid-column: 2 / -1;
  }
`;

interface Props extends StepProps {
  body: Body;
  work: Schemas["Working"];
  p: SessionPlan;
}

export function Steps({ visit, body, work, p }: Props) {
  const steps = p.plan.steps.filter((s) => s.point);
  return (
    <List aria-label="Order of the points">
      {steps.map((s, i) => (
        <Step
          key={s.point}
          {...{ visit, body, p, s, i }}
          last={i === steps.length - 1}
          turned={i > 0 && steps[i - 1]?.position !== s.position}
          work={work.points.find((w) => w.point === s.point)}
        />
      ))}
    </List>
  );
}

interface StepRow extends StepProps {
  body: Body;
  p: SessionPlan;
  s: Schemas["PlanStep"];
  i: number;
  last: boolean;
  turned: boolean;
  work?: Schemas["PointWork"];
}

function Step({ visit, body, p, s, i, last, turned, work }: StepRow) {
  const id = s.point ?? "";
  const point = visit.state.points.find((x) => x.point === id);
  if (!point) return null;
  const name = body.nameOf(point);
  const locked = p.made.must?.includes(id) ?? false;
  const keys = (e: React.KeyboardEvent) => {
    if (!e.altKey || (e.key !== "ArrowUp" && e.key !== "ArrowDown")) return;
    e.preventDefault();
    p.move(id, e.key === "ArrowUp" ? -1 : 1);
  };
  return (
    <li data-step={id} data-on={body.selected === id} onKeyDown={keys}>
      {turned && <span className="turn">Turn to {positionName(s.position ?? "")}</span>}
      <span className="n">{i + 1}</span>
      <Button aria-label={`${name}: show it`} onPress={() => body.open(id)}>
        {name}
      </Button>
      <span className="does">
        <Button aria-label={`${name} earlier`} isDisabled={i === 0} onPress={() => p.move(id, -1)}>
          <ArrowUp size={18} aria-hidden />
        </Button>
        <Button aria-label={`${name} later`} isDisabled={last} onPress={() => p.move(id, 1)}>
          <ArrowDown size={18} aria-hidden />
        </Button>
        <Button aria-label={`${name}: include`} aria-pressed={locked} onPress={() => p.lock(id)}>
          {locked ? <Lock size={17} aria-hidden /> : <LockOpen size={17} aria-hidden />}
        </Button>
        <Button aria-label={`${name}: skip`} onPress={() => p.drop(id)}>
          <X size={18} aria-hidden />
        </Button>
      </span>
      <span className="below quiet small">
        {[body.siteOf(point), judgedAs(work), `${s.minutes} min, ${positionName(s.position ?? "")}`]
          .filter(Boolean)
          .join(" · ")}
      </span>
      {s.broken?.map((b) => (
        <Said key={b} className="below" $tone="warn" $small>
          {inWords(visit, body, b)}
        </Said>
      ))}
      {work && (
        <div className="below">
          <ProtocolPick visit={visit} point={point} work={work} />
        </div>
      )}
    </li>
  );
}

/** Rules name points by id; people by muscle. */
function inWords(visit: StepProps["visit"], body: Body, rule: string): string {
  return visit.state.points.reduce((text, p) => text.replace(p.point, body.nameOf(p)), rule);
}
