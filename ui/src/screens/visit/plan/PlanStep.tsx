// The points judged, how they hang together, and a session that fits the time.
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";
import type { Body } from "../body/useBody";
import { NextUp } from "../next/NextUp";
import type { StepProps } from "../StepProps";
import type { StepName } from "../steps";
import { Relations } from "./Relations";
import { Sequences } from "./Sequences";
import { Session } from "./Session";

interface Props extends StepProps {
  body: Body;
  work: Schemas["Working"];
  ranking: Schemas["Ranking"];
  go: (step: StepName) => void;
}

export function PlanStep({ visit, body, work, ranking, go }: Props) {
  const [open, setOpen] = useState<string>();
  const { leave } = body;
  // What was looked at here is not what is charted or pressed next.
  useEffect(() => leave, [leave]);
  if (visit.state.points.length === 0)
    return (
      <>
        <NextUp
          visit={visit}
          title="Nothing to plan yet"
          why="Points are charted first; then they are judged beside one another, and the session is fitted into its minutes."
        />
        <Sequences visit={visit} />
      </>
    );
  return (
    <>
      <Session visit={visit} body={body} work={work} go={go} />
      <Sequences visit={visit} />
      <Relations visit={visit} body={body} work={work} ranking={ranking} open={open} setOpen={setOpen} />
    </>
  );
}
