// A point charted in seconds, or corrected.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { useFigure } from "../../../body/views";
import { uuidv7 } from "../../../core/ids";
import { Button, Card, Choice } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { one, plain, sentence } from "../../../parts/words";
import type { Aim } from "../body/useAiming";
import type { Body } from "../body/useBody";
import type { StepProps } from "../StepProps";
import { type Chart, chartOf, fieldsOf, fresh } from "./chart";
import { ChartFields } from "./ChartFields";
import { HowTo } from "./HowTo";

const Wide = styled(Button)`
  flex: 1;
`;

export type Aimed = Aim & { candidate: Schemas["Candidate"] };

interface Props extends StepProps {
  body: Body;
  finger?: number;
  /** A point of this visit, or where one is to be. */
  point?: Schemas["Point"];
  aim?: Aimed;
}

export function ChartCard({ visit, body, finger, point, aim }: Props) {
  const [c, setC] = useState<Chart>(() => (point ? chartOf(point) : fresh));
  const [missing, setMissing] = useState("");
  const of = point ?? aim?.candidate;
  const write = useSave(visit, point, aim);
  if (!of) return null;
  const { muscle, side } = of;
  const guide = visit.core.palpate(muscle, side, body.height, of.site || undefined, finger);
  const again = aim && earlierSpot(visit, aim, body.height);
  const set = (over: Partial<Chart>) => {
    setC({ ...c, ...over });
    if (over.nprs !== undefined) setMissing("");
    if (over.felt) body.setFelt(over.felt);
  };
  const save = (e: React.FormEvent) => {
    e.preventDefault();
    if (c.nprs === undefined) return setMissing("The client's number at test pressure, 0 to 10, is missing.");
    write(c, again?.identity);
    body.leave();
  };
  return (
    <Card>
      {aim && <UnderFinger aim={aim} body={body} />}
      <div>
        <h2>
          {guide.name}, {side}
        </h2>
        <p className="quiet">{whereOf(guide, again, of.site)}</p>
        <Said className="quiet" $small>
          Usually sends pain to {guide.referral.essential.map(plain).join(", ")}: a guide, never proof.
        </Said>
      </div>
      <Stack as="form" onSubmit={save}>
        <ChartFields
          c={c}
          set={set}
          usual={[...guide.referral.essential, ...guide.referral.spillover]}
          missing={missing}
        />
        <Row>
          <Wide type="submit" $kind="main">
            {point ? "Save the correction" : "Chart this point"}
          </Wide>
          <Button onPress={body.leave}>Leave</Button>
          {point && !visit.state.holds.some((h) => h.point === point.point) && (
            <Button
              $kind="stop"
              onPress={() => {
                visit.write("point-removed", { point: point.point });
                body.leave();
              }}
            >
              Remove
            </Button>
          )}
        </Row>
      </Stack>
      <HowTo guide={guide} height={body.height} />
    </Card>
  );
}

/** The point of an earlier visit that lies at the same spot. */
function earlierSpot({ core, open }: StepProps["visit"], aim: Aimed, height: number) {
  const { muscle, side, place } = aim.candidate;
  const identity = core.same(open.earlier, muscle, side, place, height);
  return identity ? open.earlier.find((p) => p.identity === identity) : undefined;
}

function whereOf(guide: Schemas["Guide"], before: Schemas["FoundPoint"] | undefined, site?: string) {
  if (before) return `Same spot as before: last time ${one(before.nprs)}, after ${one(before.after_nprs)}.`;
  return site ? guide.sites[0]?.name : "Own site.";
}

/** Writes a new point, or the correction of one. */
function useSave({ write }: StepProps["visit"], point?: Schemas["Point"], aim?: Aimed) {
  const { data: figure } = useFigure(aim?.view ?? "back");
  return (c: Chart, identity: string | undefined) => {
    if (point) {
      const { point: id, muscle, side, site, figure: on, view, x, y, place } = point;
      write("point-corrected", {
        point: id,
        identity: point.identity,
        muscle,
        side,
        ...(site ? { site } : {}),
        figure: on,
        view,
        x,
        y,
        place,
        ...fieldsOf(c),
      });
    } else if (aim && figure) {
      const { muscle, side, site, place } = aim.candidate;
      write("point-charted", {
        point: uuidv7(),
        ...(identity ? { identity } : {}),
        muscle,
        side,
        ...(site ? { site } : {}),
        figure: figure.version,
        view: aim.view,
        x: aim.x,
        y: aim.y,
        place,
        ...fieldsOf(c),
      });
    }
  };
}

/** What lies under the finger, where it is more than one muscle. */
function UnderFinger({ aim, body }: { aim: Aimed; body: Body }) {
  const under = aim.under?.muscles ?? [];
  return (
    <>
      <Said className="quiet" $small aria-live="polite">
        {sentence(plain(aim.under?.region ?? ""))}, {aim.candidate.side}
      </Said>
      {under.length > 1 && (
        <Choice
          quiet
          label="Muscle under the finger"
          value={aim.candidate.muscle}
          options={under.slice(0, 4).map((m) => m.muscle)}
          onChoose={(m) => body.setAim({ ...aim, candidate: under.find((x) => x.muscle === m) })}
          describe={(m) => sentence(plain(m))}
        />
      )}
    </>
  );
}
