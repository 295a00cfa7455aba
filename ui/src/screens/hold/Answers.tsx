// Who answers in a hold: the client in the room, whose number is touched, or a simulated one.
import { lazy, Suspense } from "react";
import type { Schemas } from "../../api/client";
import { ofBench } from "../../core/benchVisit";
import type { LiveVisit } from "../../core/useVisit";
import { Scores } from "./Scores";
import type { LiveHold } from "./useHold";

/** A simulated client under the hand. */
const BenchDock = lazy(() => import("../bench/visit/BenchDock"));

interface Props {
  me: Schemas["Me"];
  visit: LiveVisit;
  hold: Schemas["Hold"];
  live: LiveHold;
  /** It is asked whether somebody is there. */
  asked: boolean;
}

export function Answers({ me, visit, hold, live, asked }: Props) {
  const id = visit.open.visit.id;
  if (ofBench(id))
    return (
      <Suspense fallback={null}>
        <BenchDock visit={id} me={me} hold={hold} live={live} />
      </Suspense>
    );
  return (
    <Scores
      soft={hold.start.limits.soft_ceiling}
      off={asked || !live.view.takes.includes("score")}
      canUndo={live.begun && !live.ended && !asked}
      act={live.act}
    />
  );
}
