// From findings to a ranked list of suspects, live: every answer re-ranks in
// the same frame. A guide, and worded as one.
import type { Schemas } from "../../../api/client";
import { Button, Card } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import type { MuscleSide } from "../body/useAiming";
import type { StepProps } from "../StepProps";
import { Suspects } from "./Suspects";
import { Tests } from "./Tests";
import { Weights } from "./Weights";

interface Props extends StepProps {
  ranking: Schemas["Ranking"];
  chosen?: MuscleSide;
  setChosen: (c: MuscleSide | undefined) => void;
  height: number;
}

export function SuspectStep({ visit, ranking, chosen, setChosen, height }: Props) {
  return (
    <>
      <Suspects visit={visit} ranking={ranking} chosen={chosen} setChosen={setChosen} height={height} />
      <Tests visit={visit} next={ranking.next_tests} today={ranking.tests_today} />
      <Card>
        <Weights visit={visit} />
        {chosen && (
          <Row>
            <Button onPress={() => setChosen(undefined)}>Hide muscle</Button>
          </Row>
        )}
      </Card>
    </>
  );
}
