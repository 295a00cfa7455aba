// Each point judged, with its reasons and how it hangs together with the others;
// corrected by hand, traced back, told apart from or joined with earlier spots.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Card } from "../../../parts/controls";
import { Bullets, Plain, Said, Stack } from "../../../parts/layout";
import type { Body } from "../body/useBody";
import { judgedAs } from "../find/PointList";
import type { StepProps } from "../StepProps";
import { ByHand } from "./ByHand";
import { SameSpot } from "./SameSpot";
import { TraceBack } from "./TraceBack";

const Item = styled.li`
  padding: var(--s3) 0;
  border-top: 1px solid var(--line-soft);
  &:first-child {
    border-top: 0;
  }
  .head {
    display: flex;
    width: 100%;
    justify-content: space-between;
    align-items: center;
    gap: var(--s3);
    margin-bottom: var(--s2);
    text-align: left;
  }
`;

interface Props extends StepProps {
  body: Body;
  work: Schemas["Working"];
  ranking: Schemas["Ranking"];
  open?: string;
  setOpen: (point: string | undefined) => void;
}

export function Relations({ visit, body, work, ranking, open, setOpen }: Props) {
  return (
    <Card data-relations>
      <h2>How the points relate</h2>
      <p className="quiet">
        Calculated from your findings; a guide only. Lines on the body run from a point to what depends on it.
      </p>
      <Plain>
        {visit.state.points.map((p) => {
          const w = work.points.find((x) => x.point === p.point);
          return (
            w && (
              <Item key={p.point} data-judged={p.muscle}>
                <Button
                  className="head"
                  aria-expanded={open === p.point}
                  onPress={() => {
                    setOpen(open === p.point ? undefined : p.point);
                    body.open(p.point);
                  }}
                >
                  <span>
                    {body.nameOf(p)}
                    <br />
                    <span className="quiet small">{body.siteOf(p)}</span>
                  </span>
                  <span className="quiet">{judgedAs(w)}</span>
                </Button>
                {open === p.point && <Judged {...{ visit, body, ranking }} point={p} work={w} />}
              </Item>
            )
          );
        })}
      </Plain>
    </Card>
  );
}

interface JudgedProps extends StepProps {
  body: Body;
  ranking: Schemas["Ranking"];
  point: Schemas["Point"];
  work: Schemas["PointWork"];
}

function Judged({ visit, body, ranking, point, work }: JudgedProps) {
  const { judged } = work;
  return (
    <Stack $gap={3}>
      <p>{judged.text}</p>
      <Bullets>
        {judged.roles.map((r) => (
          <li key={r.role + (r.of ?? "")}>{r.text}</li>
        ))}
      </Bullets>
      {judged.unsaid.length > 0 && (
        <Said className="quiet" $small>
          Not said yet: {judged.unsaid.join(", ")}.
        </Said>
      )}
      <SameSpot visit={visit} point={point} work={work} />
      <ByHand visit={visit} point={point} work={work} />
      <TraceBack visit={visit} body={body} ranking={ranking} point={point} />
    </Stack>
  );
}
