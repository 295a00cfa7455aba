// Mark a point, chart it in seconds, correct it later.
import type { Schemas } from "../../../api/client";
import { Card } from "../../../parts/controls";
import { plain, sentence } from "../../../parts/words";
import type { Aimed } from "../body/useAiming";
import type { Body } from "../body/useBody";
import { FoundBefore, NextUp } from "../next/NextUp";
import type { StepProps } from "../StepProps";
import { BeforeHands, useBeforeHands } from "./BeforeHands";
import { ChartCard } from "./ChartCard";
import { PointList } from "./PointList";
import { Another, SearchCard } from "./SearchCard";

interface Props extends StepProps {
  body: Body;
  work: Schemas["Working"];
  /** The therapist's own finger-width in cm. */
  finger?: number;
}

export function FindStep({ visit, body, work, finger }: Props) {
  const { aim, selected, chosen } = body;
  const point = visit.state.points.find((p) => p.point === selected);
  const { ready } = useBeforeHands({ visit }, aim?.candidate?.consent);
  if (!point && !aim) {
    return (
      <>
        {(chosen || work.search.length > 0) && (
          <SearchCard visit={visit} body={body} search={work.search} finger={finger} />
        )}
        {visit.state.points.length > 0 && <PointList visit={visit} work={work.points} onOpen={body.open} />}
        {visit.state.points.length + work.search.length === 0 && !chosen ? (
          <NextUp
            visit={visit}
            title="Touch the body where the band is"
            why="Or begin with what was found before, or with what the findings speak for."
          />
        ) : (
          <FoundBefore visit={visit} />
        )}
        <Another core={visit.core} onPick={body.setChosen} />
      </>
    );
  }
  if (aim && !aim.under) {
    return (
      <Card>
        <h2>Aiming</h2>
        <p className="quiet">Arrow keys move, Shift moves faster, Enter marks.</p>
      </Card>
    );
  }
  if (aim && !aim.candidate) {
    return (
      <Card>
        <h2>{aim.under?.region ? sentence(plain(aim.under.region)) : "Off the body"}</h2>
        <p className="quiet">
          No muscle of the atlas runs here in this view. Touch another place, or another view.
        </p>
      </Card>
    );
  }
  if (!point && !ready) return <BeforeHands visit={visit} consent={aim?.candidate?.consent} />;
  // Only another point or place begins the form anew; a log that grows meanwhile
  // must not take away what is being typed.
  const key = point?.point ?? `touch ${aim?.touch}`;
  return (
    <ChartCard
      key={key}
      visit={visit}
      body={body}
      finger={finger}
      point={point}
      aim={aim as Aimed | undefined}
    />
  );
}
