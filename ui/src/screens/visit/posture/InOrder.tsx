// All measures of posture one after the other, hands free: the next one is named and lit on the
// body, and taken when the instrument lies steady.
import { useEffect, useRef, useState } from "react";
import { useInclinometer, useInclinometerAddress } from "../../../core/useInclinometer";
import { Button } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import { listed } from "../../../parts/words";
import { play } from "../../hold/tones";
import { Readout } from "../Instrument";
import type { StepProps } from "../StepProps";
import { readingOf } from "./draft";
import type { PosturePlace } from "./lines";
import { measures, ofSides, readable } from "./measures";
import { type ReadSide, steadyDraft } from "./steady";

interface Props extends StepProps {
  onNext: (p: PosturePlace) => void;
}

/** What is read with the instrument, in the order of reading. */
const all: PosturePlace[] = Object.entries(measures)
  .filter(([, m]) => readable(m))
  .flatMap(([id, m]): PosturePlace[] => {
    const measure = id as PosturePlace["measure"];
    return ofSides(m)
      ? [
          { measure, side: "left" as const },
          { measure, side: "right" as const },
        ]
      : [{ measure, side: "midline" as const }];
  });

const nameOf = (p: PosturePlace) => listed(measures[p.measure]?.name, p.side !== "midline" && p.side);

export function InOrder({ visit, onNext }: Props) {
  const { core, state, write } = visit;
  const address = useInclinometerAddress();
  const [on, setOn] = useState(false);
  const [skipped, setSkipped] = useState<string[]>([]);
  const key = (p: PosturePlace) => p.measure + p.side;
  const isRead = (p: PosturePlace) =>
    state.posture.some((x) => x.measure === p.measure && (p.side === "midline" || x.side === p.side));
  const next = on ? all.find((p) => !isRead(p) && !skipped.includes(key(p))) : undefined;
  const nextKey = next && key(next);
  const target = useRef(next);
  target.current = next;
  const told = useRef(onNext);
  told.current = onNext;
  useEffect(() => {
    if (nextKey && target.current) told.current(target.current);
  }, [nextKey]);
  const live = useInclinometer(
    core,
    next ? address : undefined,
    "posture",
    (next && measures[next.measure]?.usual) ?? { deg: 10 },
    async (t) => {
      const p = target.current;
      const m = p && measures[p.measure];
      if (!p || !m) return;
      play("taken");
      const { draft, side } = steadyDraft(m, t, p.side === "midline" ? undefined : (p.side as ReadSide));
      const r = await readingOf(core, p.measure, m, draft, side);
      if ("reading" in r) write("posture-read", r.reading);
    },
  );
  if (!address) return null;
  return (
    <>
      <Row $wrap>
        <Button
          $kind={on ? "main" : "plain"}
          aria-pressed={on}
          onPress={() => {
            setSkipped([]);
            setOn(!on);
          }}
        >
          {on ? "Stop measuring" : "Take all in order when steady"}
        </Button>
        {next && <Button onPress={() => setSkipped([...skipped, key(next)])}>Skip this one</Button>}
      </Row>
      {next && <Readout live={live} next={`Ready for ${nameOf(next)}: hold still at the end.`} />}
      {on && !next && <p role="status">All readings taken.</p>}
    </>
  );
}
