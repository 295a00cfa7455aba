// The ranked list: each suspect opens its reasons and lies on the body.
import { useContext, useState } from "react";
import { Button as AriaButton } from "react-aria-components";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { WhatNext } from "../next/WhatNext";
import { useGuide } from "../../../core/useGuide";
import type { LiveVisit } from "../../../core/useVisit";
import type { MuscleSide } from "../body/useAiming";
import { Telling } from "./Telling";
import { Button, Card, Choice, bare } from "../../../parts/controls";
import { Cautions, Row } from "../../../parts/layout";
import { plain, sentence } from "../../../parts/words";

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 0;
  > li {
    border-top: 1px solid var(--line-soft);
    padding: 7px 0;
  }
  > li:first-child {
    border-top: 0;
  }
  .head {
    ${bare}
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(70px, 33%) 46px;
    gap: 12px;
    align-items: center;
    width: 100%;
    box-sizing: border-box;
    border-radius: 8px;
  }
  .head .num {
    text-align: right;
  }
  .name {
    font-weight: 500;
  }
  .head[data-chosen="true"] .name {
    font-weight: 650;
  }
  .bar {
    position: relative;
    height: 12px;
    border-radius: 6px;
    background: var(--line-soft);
  }
  .bar i {
    position: absolute;
    inset: 0 auto 0 0;
    border-radius: 6px;
    background: var(--usual);
  }
  .bar[data-ready="true"] i {
    background: var(--accent);
  }
  .bar b {
    position: absolute;
    left: 80%;
    top: -4px;
    bottom: -4px;
    width: 2px;
    background: var(--ink);
  }
  table {
    border-collapse: collapse;
    margin: 4px 0 2px;
    width: 100%;
  }
  td {
    padding: 2px 10px 2px 0;
    vertical-align: top;
  }
  td:first-child {
    width: 58px;
    text-align: right;
    font-variant-numeric: tabular-nums;
    color: var(--ink-soft);
  }
  .blocked {
    color: var(--stop);
    font-size: var(--t1);
  }
`;

function headline(ready: number, raised: number): string {
  if (ready) return `${ready} ${ready === 1 ? "muscle" : "muscles"} over 80 %`;
  return raised ? "No muscle above 80 % yet. Test further." : "Nothing found that speaks for a muscle yet";
}

/** How many suspects are shown at first: more is not read. */
const few = 7;

interface Props {
  visit: LiveVisit;
  ranking: Schemas["Ranking"];
  chosen?: MuscleSide;
  setChosen: (c: MuscleSide) => void;
  height: number;
}

export function Suspects({ ranking, ...rest }: Props) {
  const [order, setOrder] = useState<"likeliest first" | "by region">("likeliest first");
  const [allShown, setAllShown] = useState(false);
  const [open, setOpen] = useState<string>();
  const ready = ranking.suspects.filter((s) => s.ready).length;
  const raised = ranking.suspects.filter((s) => s.raised);
  const list = allShown ? raised : raised.slice(0, few);
  const regions = order === "by region" ? [...new Set(list.map((s) => s.region))] : [""];
  return (
    <Card>
      <h2>{headline(ready, raised.length)}</h2>
      <p className="quiet">A guide from what was found, never proof. The line is 80 %.</p>
      {raised.length === 0 && <Telling missing={ranking.missing} />}
      {ranking.notes.map((n) => (
        <p key={n} className="caution">
          {n}
        </p>
      ))}
      {regions.map((region) => (
        <div key={region}>
          {region && <h3 className="quiet">{sentence(plain(region))}</h3>}
          <List aria-label={region ? `Suspects, ${plain(region)}` : "Suspects, likeliest first"}>
            {list
              .filter((s) => !region || s.region === region)
              .map((s) => (
                <Suspect key={keyOf(s)} s={s} open={open === keyOf(s)} setOpen={setOpen} {...rest} />
              ))}
          </List>
        </div>
      ))}
      <Row $wrap>
        <Choice
          quiet
          label="Order"
          value={order}
          options={["likeliest first", "by region"] as const}
          onChoose={setOrder}
        />
        {raised.length > few && (
          <Button onPress={() => setAllShown(!allShown)}>
            {allShown ? "The likeliest only" : `All ${raised.length}`}
          </Button>
        )}
      </Row>
    </Card>
  );
}

const keyOf = (s: MuscleSide) => s.muscle + s.side;

interface OneProps extends Omit<Props, "ranking"> {
  s: Schemas["Suspect"];
  open: boolean;
  setOpen: (key: string | undefined) => void;
}

function Suspect({ s, open, setOpen, visit, chosen, setChosen, height }: OneProps) {
  const it = { muscle: s.muscle, side: s.side };
  const next = useContext(WhatNext);
  const guide = useGuide(visit.core, open ? it : undefined, height);
  return (
    <li data-suspect={`${s.muscle}:${s.side}`}>
      <AriaButton
        className="head"
        data-chosen={!!chosen && keyOf(chosen) === keyOf(s)}
        aria-expanded={open}
        onPress={() => {
          setOpen(open ? undefined : keyOf(s));
          setChosen(it);
        }}
      >
        <span className="name">
          {s.name}, {s.side}
          {s.blocked && <span className="blocked"> · blocked</span>}
        </span>
        <span className="bar" data-ready={s.ready} aria-hidden>
          <i style={{ width: `${s.confidence * 100}%` }} />
          <b />
        </span>
        <span className="num">{Math.round(s.confidence * 100)} %</span>
      </AriaButton>
      {open && <Reasons s={s} guide={guide} onFind={() => next?.find(it)} />}
    </li>
  );
}

/** A suspect's reasons with their weights, and what to be careful of there. */
function Reasons({
  s,
  guide,
  onFind,
}: {
  s: Schemas["Suspect"];
  guide: Schemas["Guide"] | undefined;
  onFind: () => void;
}) {
  const near = (guide?.near ?? [])
    .filter((n) => (n.distance_cm ?? 0) < 5)
    .map((n) => `${sentence(plain(n.structure))}: ${n.text}`);
  const cautions = [...(guide?.cautions ?? []), ...near].slice(0, 4);
  return (
    <>
      {s.blocked_because && <p className="blocked">{s.blocked_because}</p>}
      <table>
        <tbody>
          {s.why.map((w) => (
            <tr key={w.finding + w.text}>
              <td>
                {w.effect > 0 ? "+" : "−"}
                {Math.abs(w.effect).toFixed(1)}
              </td>
              <td>{w.text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {cautions.length > 0 && (
        <Cautions className="cautions" aria-label="Cautions here">
          {cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </Cautions>
      )}
      <Button onPress={onFind}>Go to palpation</Button>
    </>
  );
}
