// Where a point that is unfamiliar, or does not let go, may come from.
import { useContext, useMemo } from "react";
import type { Schemas } from "../../../api/client";
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
    <Disclosed summary="Where may it come from?">
      <Candidates {...props} />
    </Disclosed>
  );
}

function Candidates({ visit, ranking, point }: Props) {
  const next = useContext(WhatNext);
  const { core, open, state } = visit;
  const list = useMemo(
    () => core.trace({ open, state }, ranking.suspects, point.point),
    [core, open, state, ranking.suspects, point.point],
  );
  return list.map((c) => (
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
