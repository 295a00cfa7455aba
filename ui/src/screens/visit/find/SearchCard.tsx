// The search: muscle by muscle, in the order in which the client turns least. A
// list, not a lock; what came of each is one touch, and recorded.
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import type { Core } from "../../../core/core";
import { Button, Card, Choice, Search } from "../../../parts/controls";
import { Fill, Row, Said, Stack } from "../../../parts/layout";
import { positionName, sentence } from "../../../parts/words";
import type { MuscleSide } from "../body/useAiming";
import type { Body } from "../body/useBody";
import type { StepProps } from "../StepProps";
import { pointName } from "../pointWords";
import { useGuide } from "../../../core/useGuide";
import { useSearchKeys } from "./useSearchKeys";

type Item = Schemas["SearchItem"];

const Listed = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  .turn {
    font-size: var(--t1);
    color: var(--ink-soft);
    padding: var(--s3) 0 var(--s1);
    display: flex;
    gap: var(--s2);
    align-items: center;
  }
  .turn::after {
    content: "";
    flex: 1;
    border-top: 1px solid var(--line);
  }
  li > button {
    width: 100%;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: var(--s3);
    align-items: center;
    text-align: left;
    border: 0;
    background: none;
    border-radius: var(--r1);
    padding: 6px 10px;
  }
  li > button[aria-pressed="true"] {
    background: var(--accent-soft);
  }
  .off {
    color: var(--ink-soft);
    font-weight: 400;
  }
  .done {
    color: var(--good);
  }
`;

const results: Record<NonNullable<Item["result"]>, string> = {
  found: "found",
  nothing: "nothing found",
  "not-reachable": "not reachable",
};

const isOf = (i: Item, m: { muscle: string; side: string } | undefined) =>
  i.muscle === m?.muscle && i.side === m.side;

interface Props extends StepProps {
  body: Body;
  search: Item[];
  finger?: number;
}

export function SearchCard({ visit, body, search, finger }: Props) {
  const open = search.filter((i) => !i.result);
  const chosen: Pick<Item, "muscle" | "side"> | undefined = body.chosen ?? open[0];
  const go = (by: 1 | -1) => {
    const at = search.findIndex((i) => isOf(i, chosen));
    const to = search[at + by];
    if (to) body.setChosen(to);
  };
  const first = open[0];
  const begin = useRef(() => first && !body.chosen && body.setChosen(first));
  useEffect(() => void begin.current(), []);
  const found = search.length - open.length;
  return (
    <>
      {chosen && (
        <Sought
          key={chosen.muscle + chosen.side}
          {...{ visit, body, finger, chosen }}
          item={search.find((i) => isOf(i, chosen))}
          onNext={() => go(1)}
          onBack={() => go(-1)}
        />
      )}
      {search.length > 0 && (
        <Card data-search>
          <h2>The search</h2>
          <p className="quiet">
            {found} of {search.length} searched; those over 80 % first, with the fewest position changes.
          </p>
          <Listed>
            {search.map((i, n) => (
              <li key={i.muscle + i.side} data-search-item={`${i.muscle}:${i.side}`}>
                {(n === 0 || i.turn) && (
                  <span className="turn">
                    {n > 0 ? "Turn to " : ""}
                    {n > 0 ? positionName(i.position) : sentence(positionName(i.position))}
                  </span>
                )}
                <Button aria-pressed={isOf(i, chosen)} onPress={() => body.setChosen(i)}>
                  <span>
                    {i.name}, {i.side}
                  </span>
                  <span className={i.result ? "done" : "off num"}>
                    {i.result ? results[i.result] : `${Math.round(i.confidence * 100)} %`}
                  </span>
                </Button>
              </li>
            ))}
          </Listed>
        </Card>
      )}
    </>
  );
}

type Sided = "left" | "right";

/** A muscle that is not on the list, by its name. */
export function Another({ core, onPick }: { core: Core; onPick: (m: MuscleSide) => void }) {
  const [side, setSide] = useState<Sided>("left");
  const may = core.lists.muscles.filter((m) => m.sites.length > 0);
  return (
    <Card data-another>
      <h2>Another muscle</h2>
      <Row $align="end">
        <Choice label="Side" quiet value={side} options={["left", "right"] as const} onChoose={setSide} />
        <Fill>
          <Search
            label="Name"
            none="A muscle"
            value={undefined}
            options={may.map((m) => m.id)}
            describe={(id) => may.find((m) => m.id === id)?.name ?? id}
            onPick={(muscle) => muscle && onPick({ muscle, side })}
          />
        </Fill>
      </Row>
    </Card>
  );
}

interface SoughtProps extends StepProps {
  body: Body;
  finger?: number;
  chosen: Pick<Item, "muscle" | "side">;
  item?: Item;
  onNext: () => void;
  onBack: () => void;
}

/** The muscle that is searched now: its guide, a step at a time, its usual
 * places, and what came of it. */
function Sought({ visit, body, finger, chosen, item, onNext, onBack }: SoughtProps) {
  const { muscle, side } = chosen;
  const guide = useGuide(visit.core, chosen, body.height, finger);
  const steps = guide?.steps ?? [];
  const [at, setAt] = useState(0);
  const last = at >= steps.length - 1;
  const forth = () => (last ? onNext() : setAt(at + 1));
  const back = () => (at === 0 ? onBack() : setAt(at - 1));
  const say = (result: "nothing" | "not-reachable" | "open") => {
    visit.write("muscle-searched", { muscle, side, result });
    if (result !== "open") onNext();
  };
  const site = guide?.sites[0];
  const found = () => site && body.aimAtSite(site, chosen);
  useSearchKeys({ forth, back, found, nothing: () => say("nothing"), away: () => say("not-reachable") });
  return (
    <Card data-sought={muscle}>
      <h2>{pointName(visit.core, chosen)}</h2>
      {item?.result && <Said $tone="good">{sentence(results[item.result])}.</Said>}
      <Said $lead aria-live="polite" data-guide-step={at}>
        {steps[at]}
      </Said>
      <Row>
        <Button onPress={back}>Back</Button>
        <Button $kind="main" $large onPress={forth}>
          {last ? "Next muscle" : `Next step (${at + 1} of ${steps.length})`}
        </Button>
      </Row>
      <Stack>
        <Said className="quiet" $small>
          Touch the body where the band is, or a usual place:
        </Said>
        <Row $wrap $gap={1}>
          {guide?.sites.map((s) => (
            <Button key={s.site} data-site={s.site} onPress={() => body.aimAtSite(s, chosen)}>
              {s.name}
            </Button>
          ))}
        </Row>
      </Stack>
      <Row $wrap>
        {item?.result && item.result !== "found" ? (
          <Button onPress={() => say("open")}>Search it again</Button>
        ) : (
          <>
            <Button onPress={() => say("nothing")}>Nothing found</Button>
            <Button onPress={() => say("not-reachable")}>Not reachable</Button>
          </>
        )}
        <Link to={`/guide/${muscle}/${side}?height=${body.height}`}>Full screen</Link>
      </Row>
      <Said className="quiet" $small>
        Pedal or Page Down: next step, then next muscle. c chart it, m nothing, r not reachable.
      </Said>
    </Card>
  );
}
