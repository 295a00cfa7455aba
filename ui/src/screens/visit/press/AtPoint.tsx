// One point of the press step: its limits, what is chosen, what was pressed, and
// its cautions.
import { useEffect, useRef } from "react";
import { Button as AriaButton } from "react-aria-components";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Card, bare } from "../../../parts/controls";
import { Cautions, Said } from "../../../parts/layout";
import { HowFar } from "../../../parts/HowFar";
import { nearWords } from "../../../parts/unitPreferences";
import { listed, one, plain, unbroken } from "../../../parts/words";
import { MuscleSets } from "../../../body/MuscleSets";
import { useGuide } from "../../../core/useGuide";
import { pointName } from "../pointWords";
import { AskConsent } from "../Consent";
import { ProtocolPick } from "../plan/ProtocolPick";
import type { StepProps } from "../StepProps";
import { Block } from "./Block";
import { type HoldChoice, useHoldChoice } from "./choice";
import { SpareTheThumb } from "./Hands";
import { Held } from "./Held";
import { HoldChoices } from "./HoldChoices";
import type { PressProps } from "./PressProps";
import { type Begin, useBegin } from "./useBegin";
import type { HandLoad } from "./useHandLoad";
import { may } from "../../../rights";

type Point = Schemas["Point"];

const Item = styled(Card)<{ $on: boolean }>`
  border-color: ${(p) => (p.$on ? "var(--point)" : "var(--line-soft)")};
  .row {
    display: flex;
    gap: 12px;
    align-items: start;
  }
  .row > div {
    flex: 1;
  }
  .closed {
    color: var(--stop);
    max-width: 240px;
  }
  h2 button {
    ${bare}
  }
`;

/** One point: its limits, what is chosen, what was pressed, and its cautions. */
export function AtPoint({
  visit,
  me,
  selected,
  setSelected,
  height,
  point: p,
  offer,
  ...all
}: PressProps & { point: Point; offer?: Schemas["Offer"]; load?: HandLoad }) {
  const work = all.work.find((w) => w.point === p.point);
  const { state, core } = visit;
  const student = me.supervised;
  const suggestion = suggestionOf(work);
  const chosen = useHoldChoice(state.holds, p, suggestion?.protocol, offer);
  const b = useBegin(visit, p, suggestion?.protocol, chosen.chosen, student);
  const { start, begin, refused, lacks } = b;
  const guide = useGuide(core, p, height);
  const holds = state.holds.filter((h) => h.point === p.point && h.status !== "aside");
  const free = !p.closed && !p.blocked;
  const here = useRef<HTMLElement>(null);
  const on = selected === p.point;
  useEffect(() => {
    const top = here.current?.getBoundingClientRect().top ?? 0;
    // Only where its head is out of sight.
    if (on && (top < 0 || top > innerHeight / 2)) here.current?.scrollIntoView({ block: "start" });
  }, [on]);
  return (
    <Item ref={here} $on={selected === p.point} data-point={p.muscle} data-point-id={p.point}>
      <div className="row">
        <div>
          <h2>
            <AriaButton onPress={() => setSelected(p.point)}>{pointName(core, p)}</AriaButton>
          </h2>
          <p className="quiet">
            {p.site && guide?.sites[0] && `${guide.sites[0].name} · `}
            {p.nprs === undefined ? "no score yet" : `${one(p.nprs)} of 10 when found`}
            {start && !work && ` · ${inWords(start)}`}
          </p>
        </div>
        {p.closed && <b className="closed">{p.closed}</b>}
        {free && (
          <Button $kind="main" $large isDisabled={!!lacks || !start} onPress={begin}>
            {holds.length ? "Repeat" : "Begin the hold"}
          </Button>
        )}
      </div>
      {free && refused && (
        <Said role="alert" $tone="stop">
          {refused}
        </Said>
      )}
      {free && lacks && (
        <p className="quiet" role="status">
          {lacks}
        </p>
      )}
      {!p.closed && <InTheWay visit={visit} me={me} p={p} />}
      {work && !p.closed && <ProtocolPick visit={visit} point={p} work={work} />}
      {free && (
        <Ways
          visit={visit}
          p={p}
          begin={b}
          suggestion={suggestion}
          load={all.load}
          student={student}
          {...chosen}
        />
      )}
      {holds.map((h) => (
        <Held key={h.id} hold={h} visit={visit} me={me} />
      ))}
      {guide && <Muscle core={core} guide={guide} choice={chosen.chosen} />}
    </Item>
  );
}

interface WaysProps extends StepProps, ReturnType<typeof useHoldChoice> {
  p: Point;
  begin: Begin;
  suggestion: Schemas["PointSuggestion"] | undefined;
  load: HandLoad | undefined;
  student: boolean;
}

/** How it is pressed: what is chosen, why not otherwise, and what it costs the hand. */
function Ways({ visit, p, begin: { start, why }, suggestion, load, student, chosen, choose }: WaysProps) {
  return (
    <>
      {why && <Said $tone="warn">{why}</Said>}
      {start?.lowered && <p className="quiet">{start.lowered}</p>}
      <HoldChoices
        visit={visit}
        point={p}
        protocol={suggestion?.protocol}
        chosen={chosen}
        choose={choose}
        student={student}
      />
      {start && load && (
        <SpareTheThumb
          core={visit.core}
          load={load}
          point={p}
          contact={chosen.contact}
          seconds={start.plan?.presses ? start.limits.cap_ms / 1000 : 0}
          onChoose={(contact) => choose({ contact })}
        />
      )}
    </>
  );
}

/** The protocol that stands: the one taken, else the one suggested; none where
 * nothing is pressed. */
function suggestionOf(work: Schemas["PointWork"] | undefined): Schemas["PointSuggestion"] | undefined {
  if (!work || work.suggested.blocked) return undefined;
  return work.taken && !work.taken.blocked ? work.taken : work.suggested;
}

function inWords({ protocol, limits, plan }: Schemas["Start"]) {
  const cap = plan?.total_ms ?? limits.cap_ms;
  const name = plan?.name ?? plain(protocol);
  return listed(
    name,
    `target ${limits.target}`,
    `ceilings ${limits.soft_ceiling} / ${limits.hard_ceiling}`,
    `at most ${Math.round(cap / 1000)} s`,
  );
}

/** What keeps a hold from beginning: a consent, or the screening. */
function InTheWay({ visit, me, p }: StepProps & { me: Schemas["Me"]; p: Point }) {
  if (p.needs_consent) return <AskConsent visit={visit} area={p.needs_consent} why={p.blocked ?? ""} />;
  if (!p.blocked) return null;
  const overrides = may(me, "block-overridden") && !!p.overridable?.length;
  return <Block visit={visit} point={p} licensed={overrides} />;
}

interface MuscleProps {
  core: StepProps["visit"]["core"];
  guide: Schemas["Guide"];
  choice: HoldChoice;
}

/** How the muscle is set, and what to be careful of there. */
function Muscle({ core, guide, choice }: MuscleProps) {
  return (
    <>
      <MuscleSets core={core} guide={guide} lies={choice.position} chosen={choice.muscle_set} />
      <Cautions>
        {guide.cautions.map((c) => (
          <li key={c}>{unbroken(c)}</li>
        ))}
        {guide.near
          .filter((n) => n.inside_keep_off || n.distance_cm < 5)
          .map((n) => (
            <li key={n.structure}>
              {n.name}, <HowFar n={n} />. {nearWords(n)}
            </li>
          ))}
      </Cautions>
    </>
  );
}
