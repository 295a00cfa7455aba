// What is done around the holds: the sequences as they are laid out for this client, to be begun by
// a touch; those for the places of this visit's points first.
import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { useAskVisit } from "../../../core/useAsk";
import { Button, Card, Choice, Disclosed } from "../../../parts/controls";
import { Fill, Row, Ruled, Said } from "../../../parts/layout";
import { useBeginSequence } from "../../sequence/useBeginSequence";
import type { StepProps } from "../StepProps";

const blocks = ["warm-up", "lengthen", "close"] as const;
const blockNames = { "warm-up": "Warm-up", lengthen: "Lengthening", close: "Closing" };
const times = ["usual", "5", "10", "15"] as const;

export function Sequences({ visit }: StepProps) {
  const [side, setSide] = useState<"left" | "right">(
    visit.state.points[0]?.side === "right" ? "right" : "left",
  );
  const [time, setTime] = useState<(typeof times)[number]>("usual");
  const [block, setBlock] = useState<(typeof blocks)[number]>("warm-up");
  const own = visit.open.own_sequences;
  const asked = useMemo(
    () => ({ side, own, ...(time === "usual" ? {} : { minutes: Number(time) }) }),
    [side, own, time],
  );
  const offers = useAskVisit(visit, "sequence-offers", asked)?.offers.filter((o) => o.block === block) ?? [];
  return (
    <Card data-sequences>
      <h2>Around the holds</h2>
      <Row $wrap $gap={4}>
        <Choice
          quiet
          label="Part of the session"
          value={block}
          options={blocks}
          describe={(b) => blockNames[b]}
          onChoose={setBlock}
        />
        <Choice
          quiet
          label="First side"
          value={side}
          options={["left", "right"] as const}
          onChoose={setSide}
        />
        <Choice
          quiet
          label="Minutes"
          value={time}
          options={times}
          describe={(t) => (t === "usual" ? "usual time" : `${t} min`)}
          onChoose={setTime}
        />
      </Row>
      {offers.map((o) => (
        <Offer key={o.own ?? o.sequence} visit={visit} offer={o} />
      ))}
      <Link className="stands" to="/sequences">
        Change or add sequences
      </Link>
    </Card>
  );
}

function Offer({ visit, offer: o }: StepProps & { offer: Schemas["SequenceOffer"] }) {
  const { begin, refused } = useBeginSequence(visit);
  const { laid } = o;
  const turns = laid.turns === 1 ? "1 turn" : `${laid.turns} turns`;
  return (
    <Ruled $cols="minmax(0, 1fr) auto" data-offer={o.own ?? o.sequence}>
      <div>
        <h3>
          {o.name}
          {o.suggested && <span className="quiet small"> · for the points of this visit</span>}
        </h3>
        <p className="quiet">
          {o.why} {Math.round(laid.seconds / 60)} min, {laid.steps.length} steps, {turns}.
        </p>
        <Disclosed summary={left(laid.left_out.length)}>
          <ol>
            {o.words.map((w, i) => (
              <li key={`${w}${i}`}>{w}</li>
            ))}
          </ol>
          {laid.left_out.map((l) => (
            <Said key={`${l.step}${l.side}`} $tone="warn" $small>
              Step {l.step}
              {l.side ? `, ${l.side}` : ""}: {l.reason}
            </Said>
          ))}
        </Disclosed>
        {refused && (
          <Said role="alert" $tone="stop">
            {refused}
          </Said>
        )}
      </div>
      <Fill>
        <Button $kind="main" isDisabled={laid.steps.length === 0} onPress={() => begin(o)}>
          Begin
        </Button>
      </Fill>
    </Ruled>
  );
}

const left = (n: number) => (n === 0 ? "The steps" : `The steps; ${n} left out today`);
