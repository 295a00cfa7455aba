// A point charted in seconds, or corrected.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import type { Core } from "../../../core/core";
import { Button, Card, Choice } from "../../../parts/controls";
import { Fill, Row, Said, Stack } from "../../../parts/layout";
import { one, plain, sentence } from "../../../parts/words";
import type { Aimed } from "../body/useAiming";
import type { Body } from "../body/useBody";
import { muscleName, pointName } from "../pointWords";
import { useGuide } from "../../../core/useGuide";
import { ownRegions } from "../judged/useWork";
import type { StepProps } from "../StepProps";
import { type Chart, chartOf, feltOf, fresh } from "./chart";
import { Deciding, More } from "./ChartFields";
import { HowTo } from "./HowTo";
import { Nudge } from "./Nudge";
import { NumberScale, ScaleChoice, useScale } from "./NumberScale";
import { Threshold } from "./Threshold";
import { useChartKeys } from "./useChartKeys";
import { useSave } from "./useSave";
import { WhereFelt } from "./WhereFelt";

/** In reach however long the form is. */
const Reach = styled(Row)`
  position: sticky;
  bottom: -14px;
  background: var(--card);
  padding: var(--s2) 0;
  box-shadow: 0 var(--s4) 0 var(--card);
  z-index: 1;
  button {
    min-height: 72px;
  }
  > :first-child {
    flex: 1;
  }
`;

interface Props extends StepProps {
  body: Body;
  finger?: number;
  /** A point of this visit, or where one is to be. */
  point?: Schemas["Point"];
  aim?: Aimed;
}

export function ChartCard({ visit, body, finger, point, aim }: Props) {
  const of = point ?? aim?.candidate;
  if (!of) return null;
  return <Charting key={of.muscle + of.side} visit={visit} {...{ body, finger, point, aim, of }} />;
}

function Charting({
  visit,
  body,
  finger,
  point,
  aim,
  of,
}: Props & { of: Schemas["Candidate"] | Schemas["Point"] }) {
  const { muscle, side } = of;
  const again = aim?.identity ? visit.open.earlier.find((p) => p.identity === aim.identity) : undefined;
  const [c, setC] = useState<Chart>(() => (point ? chartOf(point) : fresh(again)));
  const write = useSave(visit, point, aim);
  const scale = useScale(c);
  const guide = useGuide(visit.core, of, body.height, finger);
  const { answer, say } = body.answering;
  const set = (over: Partial<Chart>) => setC((old) => ({ ...old, ...over }));
  const usual = guide?.referral.essential ?? [];
  const save = () => {
    write(feltOf(c, answer), again?.identity);
    body.leave();
  };
  useChartKeys({
    c,
    set,
    save,
    asUsual: () => say({ regions: usual }),
    nowhere: () => say({ regions: [], painted: [], none: true }),
  });
  return (
    <Card data-charting={muscle}>
      {aim && <UnderFinger aim={aim} body={body} core={visit.core} />}
      <Row $align="start" $gap={3}>
        <Fill>
          <h2>{pointName(visit.core, of)}</h2>
          <p className="quiet">{whereOf(guide, again, of.site)}</p>
        </Fill>
        {aim && <Nudge aim={aim} body={body} />}
      </Row>
      <Stack
        as="form"
        onSubmit={(e: React.FormEvent) => {
          e.preventDefault();
          save();
        }}
      >
        <NumberScale c={c} set={set} core={visit.core} scale={scale.scale} />
        <Deciding c={c} set={set} />
        <WhereFelt c={c} set={set} body={body} usual={usual} own={ownRegions(visit, again ?? point)} />
        {guide && <More c={c} set={set} guide={guide} visit={visit} side={side} />}
        <Said className="quiet" $small>
          Keys: 0–9 and x the number, g grade, b band, f familiar, u as usual, n nowhere else, w twitch, s
          chart.
        </Said>
        <Reach>
          <Button type="submit" $kind="main">
            {point ? "Save changes" : "Chart this point"}
          </Button>
          <Button onPress={body.leave}>Cancel</Button>
          {point && <Remove visit={visit} body={body} point={point} />}
        </Reach>
      </Stack>
      {point && <Threshold visit={visit} point={point} />}
      {guide && <HowTo guide={guide} height={body.height} />}
      <ScaleChoice {...scale} />
    </Card>
  );
}

function Remove({ visit, body, point }: StepProps & { body: Body; point: Schemas["Point"] }) {
  if (visit.state.holds.some((h) => h.point === point.point)) return null;
  const remove = () => {
    visit.write("point-removed", { point: point.point });
    body.leave();
  };
  return (
    <Button $kind="stop" onPress={remove}>
      Remove
    </Button>
  );
}

function whereOf(
  guide: Schemas["Guide"] | undefined,
  before: Schemas["FoundPoint"] | undefined,
  site?: string,
) {
  const where = site ? (guide?.sites[0]?.name ?? "Own site") : "Own site";
  if (before)
    return `${where}. Same spot as before: last time ${one(before.nprs)}, after ${one(before.after_nprs)}.`;
  return `${where}.`;
}

/** What lies under the finger, where it is more than one muscle. */
function UnderFinger({ aim, body, core }: { aim: Aimed; body: Body; core: Core }) {
  const under = aim.under?.muscles ?? [];
  return (
    <>
      <p className="away" aria-live="polite">
        {sentence(plain(aim.under?.region ?? ""))}, {aim.candidate.side}
      </p>
      {under.length > 1 && (
        <Choice
          quiet
          label="Muscle under the finger"
          value={aim.candidate.muscle}
          options={under.slice(0, 3).map((m) => m.muscle)}
          onChoose={(m) =>
            body.aimAtOther(
              aim,
              under.find((x) => x.muscle === m),
            )
          }
          describe={(m) => muscleName(core, m)}
        />
      )}
    </>
  );
}
