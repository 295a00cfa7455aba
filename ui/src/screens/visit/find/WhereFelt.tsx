// Where the client feels it when the point is pressed. The usual pattern is not
// named before the client has answered: naming it suggests the answer.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Perhaps } from "../../../parts/controls";
import { Row, Said } from "../../../parts/layout";
import { plain } from "../../../parts/words";
import { isSaid, type Saying } from "../body/useAnswer";
import type { Body } from "../body/useBody";
import type { Chart } from "./chart";

const Asked = styled.div`
  display: grid;
  gap: var(--s2);
  .ask {
    font-size: var(--t1);
    font-weight: 560;
    color: var(--ink-soft);
  }
  button {
    padding-inline: 12px;
  }
`;

interface Props {
  c: Chart;
  set: (over: Partial<Chart>) => void;
  body: Body;
  usual: Schemas["RegionID"][];
  /** Where this client has felt it before, from the second time on. */
  own: Schemas["RegionID"][];
}

const list = (regions: string[]) => regions.map(plain).join(", ");

export function WhereFelt({ c, set, body, usual, own }: Props) {
  const { answer, say, toggle, saying, setSaying } = body.answering;
  const said = isSaid(answer);
  const mode = (m: Saying) => (
    <Button
      $kind={saying === m ? "main" : "plain"}
      aria-pressed={saying === m}
      onPress={() => setSaying(saying === m ? undefined : m)}
    >
      {m === "touch" ? "Tap where" : "Draw it"}
    </Button>
  );
  return (
    <Asked data-where-felt>
      <span className="ask">Is it felt anywhere else? Ask openly.</span>
      <Row $wrap $gap={1}>
        <Button
          $kind={answer.none ? "main" : "plain"}
          aria-pressed={answer.none}
          onPress={() => say({ regions: [], painted: [], none: !answer.none })}
        >
          Stays local
        </Button>
        {mode("touch")}
        {mode("paint")}
        <Button onPress={() => say({ regions: usual })}>Usual pattern</Button>
        {own.length > 0 && <Button onPress={() => say({ regions: own })}>As before</Button>}
      </Row>
      {said && (
        <>
          <Row $wrap $gap={1}>
            {answer.regions.map((r) => (
              <Button key={r} aria-label={`Take away: ${plain(r)}`} onPress={() => toggle(r)}>
                {plain(r)} ×
              </Button>
            ))}
            {answer.painted.length > 0 && (
              <Button onPress={() => say({ painted: [] })}>What is painted ×</Button>
            )}
          </Row>
          <Said className="quiet" $small>
            Usual here: {list(usual)}. {own.length > 0 && `This client's before: ${list(own)}. `}A guide,
            never proof; patterns vary.
          </Said>
          <Perhaps
            label="How it was said"
            value={c.asked ?? "openly"}
            options={["openly", "volunteered"] as const}
            describe={(v) => (v === "openly" ? "said when asked" : "said unprompted")}
            onChoose={(asked) => set({ asked })}
          />
        </>
      )}
    </Asked>
  );
}
