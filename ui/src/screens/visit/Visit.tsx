// A visit: the body in the same place at every step, the path always visible.
import { lazy, Suspense, useEffect, useLayoutEffect, useRef, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { actingIn, ofBench } from "../../core/benchVisit";
import { openAhead } from "../../core/openVisit";
import { coreQuery } from "../../core/useCore";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Failed, Waiting } from "../../parts/controls";
import { whenIdle } from "../../parts/whenIdle";
import { lazily, type ScreenModule } from "../lazily";
import { TrialGuide } from "../trial/Guide";
import { firstViews } from "../../body/figurePath";
import { figureOf } from "../../body/views";
import { BodyPane, OpeningPane } from "./body/BodyPane";
import { type Body, useBody } from "./body/useBody";
import { ClientNote } from "./ClientNote";
import { DrawStep } from "./DrawStep";
import { NextHold, ToClose } from "./MainAction";
import { Notices } from "./Notices";
import type { StepPanel } from "./LaterStep";
import { LastStep } from "./last/LastStep";
import { WhatNext } from "./next/WhatNext";
import { usePath } from "./steps";
import { useWork } from "./judged/useWork";
import { useRanking } from "./suspects/useRanking";
import { Top } from "./Top";
import { bodyOf, OpeningHead, Room } from "./VisitRoom";

const BenchGuide = lazy(() => import("../bench/visit/BenchGuide"));
const LaterStep = lazily(() => import("./LaterStep"));
const StepHelp = lazy(() => import("../help/StepHelp"));

/** Steps in which the client lies on the table and hands are busy. */
const byHand: ReadonlySet<string> = new Set(["find", "press", "recheck"]);
/** Steps that consist of the core's answers: before the first they would say that there is nothing. */
const ofAnswers: ReadonlySet<string> = new Set(["measure", "suspect", "find", "plan", "press"]);

/** The visit, the core's lists and the body: drawn once, with all of them. The core itself comes later. */
export const before: ScreenModule<object>["before"] = (queries, me, { id = "" }) =>
  Promise.all([
    openAhead(queries, id, me),
    queries.prefetchQuery(coreQuery),
    ...firstViews.map((view) => queries.prefetchQuery(figureOf(view))),
    new URLSearchParams(location.search).has("step") && LaterStep.ahead(),
  ]);

export default function Visit({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  return <OfID key={id} id={id} me={me} />;
}

function OfID({ id, me }: { id: string; me: Schemas["Me"] }) {
  const { visit, error, retry } = useVisit(id, me, "early");
  if (error && !visit) return <Failed error={error} onRetry={retry} />;
  if (!visit) return <Opening />;
  return <Opened visit={visit} me={actingIn(id, me)} />;
}

/** The body is drawn before anybody knows what is to be shown on it. */
function Opening() {
  return (
    <Room data-body="worked on">
      <OpeningHead className="quiet" role="status">
        Opening the visit…
      </OpeningHead>
      <OpeningPane views={firstViews} />
    </Room>
  );
}

function Opened({ visit, me }: { visit: LiveVisit; me: Schemas["Me"] }) {
  const path = usePath(visit);
  const ranking = useRanking(visit, path.step === "suspect");
  const work = useWork(visit, ranking);
  const body = useBody(visit, path, ranking.suspects[0], work.points);
  useOpened(visit);
  usePointOfAddress(body);
  const [helping, setHelping] = useState(false);
  const panel = useAtItsTop(`${path.step} ${helping}`);
  const next: WhatNext = {
    ranking,
    earlier: body.earlier,
    go: path.goTo,
    find: (c) => {
      body.setSelected(undefined);
      body.setChosen(c);
      path.goTo("find");
    },
    again: (p) => {
      path.goTo("find");
      body.lookAt(p);
    },
  };
  return (
    <WhatNext value={next}>
      <Room data-body={bodyOf(path, body)}>
        <Top visit={visit} path={path} helping={helping} onHelp={() => setHelping(!helping)} />
        <BodyPane visit={visit} path={path} body={body} />
        <div className="panel" ref={panel} data-hands={byHand.has(path.step)}>
          {helping && (
            <Suspense fallback={null}>
              <StepHelp step={path.step} onClose={() => setHelping(false)} />
            </Suspense>
          )}
          <TrialGuide visit={visit} path={path} />
          {ofBench(visit.open.visit.id) && (
            <Suspense fallback={null}>
              <BenchGuide visit={visit} me={me} path={path} body={body} />
            </Suspense>
          )}
          <Notices visit={visit} me={me} />
          {!visit.of && ofAnswers.has(path.step) ? (
            <p className="quiet" role="status">
              Opening the visit…
            </p>
          ) : (
            <>
              <Panel visit={visit} me={me} path={path} body={body} ranking={ranking} work={work} />
              <ClientNote key={path.step} visit={visit} step={path.step} />
              <Main visit={visit} me={me} path={path} body={body} />
            </>
          )}
        </div>
      </Room>
    </WhatNext>
  );
}

/** A step opens at its top, where its cautions stand; what scrolls to a point does so afterwards. */
function useAtItsTop(step: string) {
  const panel = useRef<HTMLDivElement>(null);
  const was = useRef(step);
  useLayoutEffect(() => {
    const shown = panel.current;
    // As it opens it is there, and asking where would have it laid out twice.
    if (!shown || was.current === step) return;
    was.current = step;
    shown.scrollTop = 0;
    // On a phone the page scrolls, not the panel.
    if (shown.getBoundingClientRect().top < 0) shown.scrollIntoView({ block: "start" });
  }, [step]);
  return panel;
}

/** A point may stand in the address: the one to go to after a hold. */
function usePointOfAddress({ selected, setSelected }: Body) {
  const [params] = useSearchParams();
  const wanted = params.get("point");
  const taken = useRef<string>(undefined);
  useEffect(() => {
    if (!wanted || taken.current === wanted) return;
    taken.current = wanted;
    if (selected !== wanted) setSelected(wanted);
  }, [wanted, selected, setSelected]);
}

/** Opening it is the first event of a visit. */
function useOpened({ state, open, write }: LiveVisit) {
  const opening = useRef(false);
  const reason = open.visit.reason ?? "";
  const opened = !!state.opened_ms;
  useEffect(() => {
    if (!opened && !opening.current) write("visit-opened", { reason });
    opening.current = true;
  }, [opened, reason, write]);
  // The next step is there when it is gone to, and a hold can begin with the network gone.
  useEffect(
    () =>
      whenIdle(() => {
        void LaterStep.ahead();
        void import("../hold/Hold").catch(() => undefined);
      }),
    [],
  );
}

/** The main action of the steps at the table, at the lower edge. A point that is charted has
 * its own there. */
function Main({ visit, me, path, body }: Pick<StepPanel, "visit" | "me" | "path" | "body">) {
  const charting = path.step === "find" && (body.aim || body.selected);
  if (path.step === "press" || (path.step === "find" && !charting))
    return <NextHold visit={visit} me={me} wanted={body.selected} pedal={path.step === "press"} />;
  const { recheck } = visit.state;
  if (path.step === "recheck" && recheck.some((x) => x.done))
    return <ToClose visit={visit} onClose={() => path.goTo("close")} />;
  return null;
}

/** What is done at the step. */
function Panel(panel: StepPanel) {
  const { visit, me, path, body } = panel;
  switch (path.step) {
    case "last":
      return <LastStep visit={visit} me={me} />;
    case "draw":
      return <DrawStep visit={visit} me={me} body={body} />;
    default:
      return (
        <Suspense fallback={<Waiting>Opening…</Waiting>}>
          <LaterStep {...panel} />
        </Suspense>
      );
  }
}
