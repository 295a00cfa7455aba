// What the atlas knows about a muscle, beside the body; with a second muscle
// the two stand side by side.
import { Link } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { MuscleSets } from "../../body/MuscleSets";
import { Button, Choice, Search, WordButton } from "../../parts/controls";
import { Columns, Fill, Row, Said } from "../../parts/layout";
import { HowFar } from "../../parts/HowFar";
import { nearWords } from "../../parts/unitPreferences";
import { plain, sentence, unbroken } from "../../parts/words";
import { motion } from "./motion";
import { Own } from "./Own";
import { Sheet } from "./Sheet";
import type { AtlasView } from "./useAtlas";

type Guide = Schemas["Guide"];

interface Props {
  atlas: AtlasView;
  guide: Guide;
  own: Schemas["OwnAtlas"];
}

export function Facts({ atlas, guide, own }: Props) {
  return (
    <>
      <Compared atlas={atlas} g={guide} />
      {!atlas.second && <HowTo atlas={atlas} g={guide} />}
      <Own key={guide.muscle} muscle={guide.muscle} own={own} pressed={pressed(guide)} />
    </>
  );
}

const nameOf = (all: Schemas["AtlasEntry"][]) => (id: string) =>
  all.find((m) => m.id === id)?.name ?? plain(id);

const AsButton = styled(Link)`
  display: grid;
  text-decoration: none;
`;

/** The muscle, alone or beside a second one. */
function Compared({
  atlas: { core, all, second, side, setSide, setOther },
  g,
}: {
  atlas: AtlasView;
  g: Guide;
}) {
  const name = nameOf(all);
  const tell = second && g.mistaken_for.find((m) => m.muscle === second.muscle)?.tell;
  return (
    <Sheet>
      <Row $align="start">
        <Fill>
          <h2>{g.name}</h2>
          <p className="quiet latin">
            {g.latin} · {`layer\u00a0${g.layer}\u00a0of\u00a04`}
          </p>
        </Fill>
        <Choice label="Side" quiet value={side} options={["left", "right"] as const} onChoose={setSide} />
      </Row>
      <Columns $cols="1fr 1fr" $align="end">
        <Search
          label="Beside it"
          none="no other"
          value={second?.muscle}
          options={all.filter((m) => m.id !== g.muscle).map((m) => m.id)}
          describe={name}
          onPick={setOther}
        />
        {pressed(g) && (
          <AsButton to={`/guide/${g.muscle}/${side}`}>
            <Button $kind="main">Find it, at the table</Button>
          </AsButton>
        )}
      </Columns>
      {second && (
        <p>
          <b>{g.name}</b>: full dots. <b className="second">{second.name}</b>: rings.
          {tell ? ` ${tell}` : ""} <WordButton onPress={() => setOther(undefined)}>Take it away</WordButton>
        </p>
      )}
      <Table of={second ? [g, second] : [g]} name={name} />
      {!second && <MuscleSets core={core} guide={g} say={motion} />}
      <Said className="quiet" $small>
        Patterns differ from person to person: a guide, never proof.
      </Said>
    </Sheet>
  );
}

type Say = (x: Guide) => string;

/** What is never pressed has a usual protocol no more than a place or a contact. */
const pressed = (x: Guide) => !!x.usual_protocol;

const sends = (x: Guide) =>
  x.referral.essential.map(plain).join(", ") ||
  (pressed(x) ? "no pattern: pressing technique only" : "no pattern");

const rowsOf = (name: (id: string) => string): [string, Say][] => [
  ["Sends to", sends],
  ["Sometimes", (x) => x.referral.spillover.map(plain).join(", ") || "–"],
  ["Action", (x) => x.actions.map((a) => motion(a)).join("; ") || "–"],
  ["On stretch", (x) => x.tension.map(motion).join("; ")],
  ["On slack", (x) => x.slack.map(motion).join("; ")],
  ["Position", (x) => x.positions.map(plain).join(", ")],
  ["Contact", (x) => x.contacts.map(plain).join(", ") || "none: never pressed"],
  ["Drape", (x) => x.draping || "–"],
  ["Ease first", (x) => x.ease_first.map(name).join(", ") || "nothing"],
  ["Protocol", ({ usual_protocol: p }) => (p ? `${plain(p.protocol)}. ${p.why}` : "none: never pressed")],
  ["Nerve", (x) => x.innervation],
];

function Table({ of, name }: { of: Guide[]; name: (id: string) => string }) {
  return (
    <table>
      <tbody>
        {of.length > 1 && (
          <tr>
            <td />
            {of.map((x, i) => (
              <td key={x.muscle} className={i ? "second" : undefined}>
                <b>{x.name}</b>
              </td>
            ))}
          </tr>
        )}
        {rowsOf(name).map(([label, say]) => (
          <tr key={label}>
            <th scope="row">{label}</th>
            {of.map((x) => (
              <td key={x.muscle}>{sentence(say(x))}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How it is found and confirmed, what to keep off, what it is mistaken for. */
function HowTo({ atlas: { all, choose }, g }: { atlas: AtlasView; g: Guide }) {
  const name = nameOf(all);
  return (
    <Sheet>
      <h3>{pressed(g) ? "Find it" : "Where it lies"}</h3>
      <ol>
        {g.steps.map((s) => (
          <li key={s}>{unbroken(s)}</li>
        ))}
      </ol>
      <p>
        <b>Confirm.</b> {unbroken(g.confirm.text)}
      </p>
      {g.near.length > 0 && <h3>Keep off</h3>}
      {g.near.length > 0 && (
        <ul>
          {g.near.map((n) => (
            <li key={n.structure}>
              <b>{n.name}</b>, <HowFar n={n} />: {nearWords(n)}
            </li>
          ))}
        </ul>
      )}
      {g.mistaken_for.length > 0 && <h3>Mistaken for</h3>}
      <ul>
        {g.mistaken_for.map((n) => (
          <li key={n.muscle}>
            <WordButton onPress={() => choose(n.muscle)}>{name(n.muscle)}</WordButton>: {n.tell}
          </li>
        ))}
      </ul>
      <h3>Cautions</h3>
      <ul>
        {g.cautions.map((c) => (
          <li key={c}>{unbroken(c)}</li>
        ))}
      </ul>
      <p>
        <b>At home.</b> {g.home_stretch.text} {g.home_stretch.repeats} × {g.home_stretch.hold_s} s.
      </p>
      <Said className="quiet" $small>
        {g.sources.join(" · ")}
      </Said>
    </Sheet>
  );
}
