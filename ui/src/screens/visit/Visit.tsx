// A visit: the body in the same place at every step, the path always visible.
import { useEffect, useRef } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Button, Trouble, Waiting } from "../../parts/controls";
import { BodyPane } from "./BodyPane";
import { CloseStep } from "./CloseStep";
import { DrawStep } from "./DrawStep";
import { FindStep } from "./FindStep";
import { MeasureParts } from "./MeasureStep";
import { Notices } from "./Notices";
import { PressStep } from "./PressStep";
import { RecheckStep } from "./RecheckStep";
import { ScreenStep } from "./ScreenStep";
import { openSteps, stepNames, steps, usePath } from "./steps";
import { SuspectStep, useRanking } from "./SuspectStep";
import { useBody } from "./useBody";

const Room = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: clamp(520px, 46.25vw, 940px) minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  gap: 12px 18px;
  padding: 12px 22px 16px;
  min-height: 600px;
  .top {
    grid-column: 1 / -1;
    display: flex;
    align-items: center;
    gap: 16px;
    min-width: 0;
  }
  .top h1 {
    font-size: 21px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    min-width: 0;
    flex: 0 1 auto;
  }
  .path {
    display: flex;
    gap: 2px;
    flex: 1;
    justify-content: center;
  }
  .panel {
    overflow: auto;
    min-height: 0;
    display: grid;
    gap: 14px;
    align-content: start;
    padding: 2px 4px 16px 2px;
  }
  .compare {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 4px 14px;
    margin: 12px 0 0;
  }
  .compare dt {
    color: var(--ink-soft);
  }
  .compare dd {
    margin: 0;
  }
  .caution {
    background: var(--warn-soft);
    color: var(--warn);
    border-radius: 10px;
    padding: 8px 12px;
    font-weight: 520;
  }
`;
const Step = styled(Link)<{ $open: boolean }>`
  text-decoration: none;
  color: var(--ink-soft);
  padding: 8px 11px;
  border-radius: 10px;
  font-weight: 560;
  display: flex;
  gap: 7px;
  align-items: center;
  &[aria-current] {
    background: var(--accent);
    color: var(--accent-ink);
  }
  &::before {
    content: "";
    width: 9px;
    height: 9px;
    border-radius: 50%;
    border: 2px solid currentColor;
    background: ${(p) => (p.$open ? "transparent" : "currentColor")};
  }
`;

export default function Visit({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  if (error && !visit)
    return (
      <div style={{ padding: 24 }}>
        <Trouble error={error} onRetry={retry} />
      </div>
    );
  if (!visit) return <Waiting>Opening the visit and the core…</Waiting>;
  return <Opened visit={visit} me={me} />;
}

export interface StepProps {
  visit: LiveVisit;
}

function Opened({ visit, me }: { visit: LiveVisit; me: Schemas["Me"] }) {
  const { open, state, write, undo } = visit;
  const path = usePath(state);
  const { step, part, goTo } = path;
  const ranking = useRanking({ visit });
  const body = useBody(visit, path, ranking.suspects[0]);
  const { height } = body;
  const opening = useRef(false);
  const reason = open.visit.reason ?? "";
  const opened = !!state.opened_ms;
  useEffect(() => {
    if (!opened && !opening.current) write("visit-opened", { reason });
    opening.current = true;
    // A hold can begin with the network gone, so its screen is fetched now.
    void import("../hold/Hold").catch(() => undefined);
  }, [opened, reason, write]);
  const todo = openSteps(state);
  return (
    <Room>
      <div className="top">
        <h1>
          <Link to={`/clients/${open.client.id}`} style={{ color: "inherit", textDecoration: "none" }}>
            {open.client.given_name} {open.client.family_name}
          </Link>
        </h1>
        <nav className="path" aria-label="Steps of the visit">
          {steps.map((s) => (
            <Step
              key={s}
              $open={todo[s]}
              to={`?step=${s}`}
              aria-current={step === s ? "step" : undefined}
              aria-label={`${stepNames[s]}${todo[s] ? ", open" : ", done"}`}
            >
              {stepNames[s]}
            </Step>
          ))}
        </nav>
        <Link to={`/visits/${open.visit.id}/show`} style={{ whiteSpace: "nowrap" }}>
          Show the client
        </Link>
        <Button isDisabled={!undo} onPress={undo}>
          Undo
        </Button>
      </div>
      <BodyPane visit={visit} path={path} body={body} />
      <div className="panel">
        <Notices visit={visit} />
        {step === "draw" && <DrawStep visit={visit} me={me} body={body} />}
        {step === "screen" && (
          <ScreenStep visit={visit} placing={body.placing} setPlacing={body.setPlacing} />
        )}
        {step === "measure" && (
          <MeasureParts
            visit={visit}
            part={part}
            onPart={(p) => goTo("measure", p)}
            feeling={body.feeling}
            setFeeling={body.setFeeling}
          />
        )}
        {step === "suspect" && (
          <SuspectStep
            visit={visit}
            ranking={ranking}
            chosen={body.chosen}
            setChosen={body.setChosen}
            height={height}
            onFind={(c) => {
              body.setChosen(c);
              goTo("find");
            }}
          />
        )}
        {step === "find" && <FindStep visit={visit} body={body} finger={me.finger_cm} />}
        {step === "press" && (
          <PressStep
            visit={visit}
            me={me}
            selected={body.selected}
            setSelected={body.setSelected}
            height={height}
          />
        )}
        {step === "recheck" && <RecheckStep visit={visit} />}
        {step === "close" && <CloseStep visit={visit} me={me} />}
      </div>
    </Room>
  );
}
