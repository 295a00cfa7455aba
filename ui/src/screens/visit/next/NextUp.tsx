// What is next, and why: points of earlier visits, the likeliest suspects, what
// was short. In place of an empty step.
import { useContext } from "react";
import { styled } from "styled-components";
import { Button, Card } from "../../../parts/controls";
import { beforeAfter, deg, movementName, one } from "../../../parts/words";
import { isLocal } from "../../../core/localIDs";
import type { Schemas } from "../../../api/client";
import { useAskAll } from "../../../core/useAsk";
import { flagOf } from "../measure/useFlags";
import { useEarlierWords } from "../pointWords";
import { Telling } from "../suspects/Telling";
import type { StepProps } from "../StepProps";
import { WhatNext } from "./WhatNext";

const Offers = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: var(--s1) var(--s3);
    align-items: center;
    padding: var(--s2) 0;
    border-top: 1px solid var(--line-soft);
  }
  li:first-child {
    border-top: 0;
  }
`;

/** So many of each are offered. */
const few = 4;

interface Props extends StepProps {
  title: string;
  why: string;
}

/** Points of earlier visits that are not charted today. */
export function FoundBefore({ visit }: StepProps) {
  const next = useContext(WhatNext);
  const charted = new Set(visit.state.points.map((p) => p.identity));
  const earlier = next?.earlier.filter((p) => !charted.has(p.identity)).slice(0, few) ?? [];
  const names = useEarlierWords(visit, earlier);
  if (!next || earlier.length === 0) return null;
  return (
    <Card data-found-before>
      <h2>Found before</h2>
      <Offers aria-label="Points of earlier visits">
        {earlier.map((p) => (
          <li key={p.identity}>
            <span>
              <b>{names.get(p.identity ?? "")}</b>
              <br />
              <span className="quiet">{beforeAfter(p.nprs, p.after_nprs, (v) => `${one(v)} of 10`)}</span>
            </span>
            <Button onPress={() => next.again(p)}>Chart it again</Button>
          </li>
        ))}
      </Offers>
    </Card>
  );
}

export function NextUp({ visit, title, why }: Props) {
  const next = useContext(WhatNext);
  // The trial visit has no step that these lead to; its own guide says what is next.
  if (!next || isLocal(visit.open.visit.id)) return null;
  const suspects = next.ranking.suspects.filter((s) => s.raised && !s.blocked).slice(0, few);
  return (
    <>
      <FoundBefore visit={visit} />
      <Card data-next-up>
        <h2>{title}</h2>
        <p className="quiet">{why}</p>
        {suspects.length > 0 && <h3>Suspects</h3>}
        <Offers aria-label="Likeliest suspects">
          {suspects.map((s) => (
            <li key={s.muscle + s.side}>
              <span>
                <b>
                  {s.name}, {s.side}
                </b>{" "}
                <span className="num">{Math.round(s.confidence * 100)} %</span>
                <br />
                <span className="quiet">{s.why[0]?.text}</span>
              </span>
              <Button onPress={() => next.find({ muscle: s.muscle, side: s.side })}>Find it</Button>
            </li>
          ))}
        </Offers>
        <Short visit={visit} />
        {next.earlier.length + suspects.length === 0 && <Telling missing={next.ranking.missing} />}
      </Card>
    </>
  );
}

/** Movements that were short when measured. */
function Short({ visit }: StepProps) {
  const { state, core, open } = visit;
  const read = state.ranges.filter((r) => r.before !== undefined);
  const flags = useAskAll(
    core,
    "range",
    Object.fromEntries(
      read.map((r) => [r.movement + r.side, flagOf(r.movement, r.side, beforeOf(state, r), open.client.age)]),
    ),
  );
  const short = read.filter((r) => flags?.[r.movement + r.side]?.flagged);
  if (short.length === 0) return null;
  const words = short.map((r) => {
    const side = r.side === "midline" ? "" : `, ${r.side}`;
    return `${movementName(r.movement)}${side} ${deg(r.before)}`;
  });
  return (
    <p>
      <b>Short today:</b> {words.join("; ")}.
    </p>
  );
}

const beforeOf =
  ({ ranges }: Schemas["State"], { movement }: Schemas["Range"]) =>
  (side: Schemas["Side"]) =>
    ranges.find((r) => r.movement === movement && r.side === side)?.before;
