// Where a point that is unfamiliar, or does not let go, may come from.
import { useContext } from "react";
import type { Schemas } from "../../../api/client";
import { useAskVisit } from "../../../core/useAsk";
import { Button, Disclosed } from "../../../parts/controls";
import { Columns, Said } from "../../../parts/layout";
import type { Body } from "../body/useBody";
import { WhatNext } from "../next/WhatNext";
import type { StepProps } from "../StepProps";

interface Props extends StepProps {
  body: Body;
  ranking: Schemas["Ranking"];
  point: Schemas["Point"];
}

export function TraceBack(props: Props) {
  return (
    <Disclosed summary="Possible source?">
      <Candidates {...props} />
    </Disclosed>
  );
}

function Candidates({ visit, ranking, point }: Props) {
  const next = useContext(WhatNext);
  const found = useAskVisit(visit, "visit-trace", { suspects: ranking.suspects, point: point.point });
  return found?.points.map((c) => (
    <Columns key={c.muscle + c.side} $cols="minmax(0, 1fr) auto" $align="center" data-candidate={c.muscle}>
      <span>
        <b>
          {c.name}, {c.side}
        </b>
        <br />
        <span className="quiet small">{c.reasons.join(" ")}</span>
        {c.blocked ? (
          <Said $tone="stop" $small>
            Blocked: {c.blocked_because}
          </Said>
        ) : (
          c.press && <span className="quiet small"> Press next: {c.press.toLowerCase()}.</span>
        )}
      </span>
      {!c.blocked && <Button onPress={() => next?.find({ muscle: c.muscle, side: c.side })}>Find it</Button>}
    </Columns>
  ));
}
