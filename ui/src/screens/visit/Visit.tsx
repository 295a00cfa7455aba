// A visit: the body in the same place at every step, the path always visible.
import { useEffect, useRef } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Button, Failed, Waiting } from "../../parts/controls";
import { BodyPane } from "./body/BodyPane";
import { type Body, useBody } from "./body/useBody";
import { CloseStep } from "./CloseStep";
import { DrawStep } from "./DrawStep";
import { FindStep } from "./find/FindStep";
import { MeasureParts } from "./MeasureParts";
import { Notices } from "./Notices";
import { PressStep } from "./press/PressStep";
import { RecheckStep } from "./RecheckStep";
import { ScreenStep } from "./screening/ScreenStep";
import { openSteps, type Path, stepNames, steps, usePath } from "./steps";
import { SuspectStep } from "./suspects/SuspectStep";
import { useRanking } from "./suspects/useRanking";

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
    margin: 0;
  }
  .compare dt {
    color: var(--ink-soft);
  }
  .compare dd {
    margin: 0;
  }
  .top h1 a {
    color: inherit;
    text-decoration: none;
  }
  .top > a {
    white-space: nowrap;
  }
  .caution {
    background: var(--warn-soft);
    color: var(--warn);
    border-radius: var(--r1);
    padding: 8px 12px;
    font-weight: 520;
  }
`;
const Step = styled(Link)<{ $open: boolean }>`
  text-decoration: none;
  color: var(--ink-soft);
  padding: 8px 11px;
  border-radius: var(--r1);
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
  return <OfID key={id} id={id} me={me} />;
}

function OfID({ id, me }: { id: string; me: Schemas["Me"] }) {
  const { visit, error, retry } = useVisit(id, me);
  if (error && !visit) return <Failed error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Opening the visit and the core…</Waiting>;
  return <Opened visit={visit} me={me} />;
}

function Opened({ visit, me }: { visit: LiveVisit; me: Schemas["Me"] }) {
  const path = usePath(visit.state);
  const ranking = useRanking(visit);
  const body = useBody(visit, path, ranking.suspects[0]);
  useOpened(visit);
  return (
    <Room>
      <Top visit={visit} path={path} />
      <BodyPane visit={visit} path={path} body={body} />
      <div className="panel">
        <Notices visit={visit} />
        <Panel visit={visit} me={me} path={path} body={body} ranking={ranking} />
      </div>
    </Room>
  );
}

/** Opening it is the first event of a visit. */
function useOpened({ state, open, write }: LiveVisit) {
  const opening = useRef(false);
  const reason = open.visit.reason ?? "";
  const opened = !!state.opened_ms;
  useEffect(() => {
    if (!opened && !opening.current) write("visit-opened", { reason });
    opening.current = true;
    // A hold can begin with the network gone, so its screen is fetched now.
    void import("../hold/Hold").catch(() => undefined);
  }, [opened, reason, write]);
}

function Top({ visit, path }: { visit: LiveVisit; path: Path }) {
  const { open, state, undo } = visit;
  const todo = openSteps(state);
  return (
    <div className="top">
      <h1>
        <Link to={`/clients/${open.client.id}`}>
          {open.client.given_name} {open.client.family_name}
        </Link>
      </h1>
      <nav className="path" aria-label="Steps of the visit">
        {steps.map((s) => (
          <Step
            key={s}
            $open={todo[s]}
            to={`?step=${s}`}
            aria-current={path.step === s ? "step" : undefined}
            aria-label={`${stepNames[s]}${todo[s] ? ", open" : ", done"}`}
          >
            {stepNames[s]}
          </Step>
        ))}
      </nav>
      <Link to={`/visits/${open.visit.id}/show`}>Show the client</Link>
      <Button isDisabled={!undo} onPress={undo}>
        Undo
      </Button>
    </div>
  );
}

interface PanelProps {
  visit: LiveVisit;
  me: Schemas["Me"];
  path: Path;
  body: Body;
  ranking: Schemas["Ranking"];
}

/** What is done at the step. */
function Panel({ visit, me, path, body, ranking }: PanelProps) {
  switch (path.step) {
    case "draw":
      return <DrawStep visit={visit} me={me} body={body} />;
    case "screen":
      return (
        <ScreenStep visit={visit} placing={body.placing.question} setPlacing={body.placing.setQuestion} />
      );
    case "measure":
      return (
        <MeasureParts
          visit={visit}
          part={path.part}
          onPart={(p) => path.goTo("measure", p)}
          placing={body.placing}
        />
      );
    case "suspect":
      return (
        <SuspectStep
          visit={visit}
          ranking={ranking}
          chosen={body.chosen}
          setChosen={body.setChosen}
          height={body.height}
          onFind={(c) => {
            body.setChosen(c);
            path.goTo("find");
          }}
        />
      );
    case "find":
      return <FindStep visit={visit} body={body} finger={me.finger_cm} />;
    case "press":
      return (
        <PressStep
          visit={visit}
          me={me}
          selected={body.selected}
          setSelected={body.setSelected}
          height={body.height}
        />
      );
    case "recheck":
      return <RecheckStep visit={visit} />;
    case "close":
      return <CloseStep visit={visit} me={me} />;
  }
}
