// One step of a sequence in the making: what, where and how much, with keys to move it.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button, Choice, Pick, Search, Text } from "../../parts/controls";
import { Fill, Row, Said } from "../../parts/layout";
import { plain, positionName, sentence } from "../../parts/words";
import { amountOf, eachOf, type Step, stepOf, type Technique, withAmount, withEach } from "./draft";
import type { Places } from "./places";
import { Stepper } from "./Stepper";

const Line = styled.li`
  border: 1px solid var(--line-soft);
  border-radius: var(--r1);
  background: var(--card);
  padding: var(--s2) var(--s3);
  display: grid;
  gap: var(--s2);
  &[data-over="true"] {
    border-color: var(--accent);
    border-width: 2px;
  }
  &[data-wrong="true"] {
    border-color: var(--stop);
  }
  .grip {
    cursor: grab;
    color: var(--ink-soft);
    padding: 0 var(--s1);
  }
`;

const positions: Schemas["PositionID"][] = [
  "prone",
  "supine",
  "side-lying-left",
  "side-lying-right",
  "seated",
];
const unitNames = { seconds: "s", repetitions: "×", breaths: "breaths", stations: "places" };

interface Props {
  s: Step;
  t: Technique;
  nth: number;
  last: boolean;
  places: Places;
  /** What the core says against it. */
  wrong?: string;
  onChange: (s: Step) => void;
  onMove: (from: number, to: number) => void;
  onDrop: () => void;
}

export function StepRow({ s, t, nth, last, places, wrong, onChange, onMove, onDrop }: Props) {
  const [more, setMore] = useState(false);
  const [over, setOver] = useState(false);
  return (
    <Line
      data-step={s.technique}
      data-over={over}
      data-wrong={!!wrong}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        onMove(Number(e.dataTransfer.getData("text/plain")), nth);
      }}
    >
      <Row $wrap $gap={3} $align="center">
        <span
          className="grip"
          aria-hidden
          draggable
          onDragStart={(e) => e.dataTransfer.setData("text/plain", String(nth))}
        >
          ⠿
        </span>
        <Fill>
          <b>
            {nth + 1}. {t.name}
          </b>{" "}
          <span className="quiet">{places.name(s.where)}</span>
        </Fill>
        <Stepper
          label={`${t.name}, how much`}
          value={amountOf(s, t)}
          unit={unitNames[t.steer]}
          by={stepOf(t.steer, t.amount.most)}
          bounds={t.amount}
          onChange={(v) => onChange(withAmount(s, t, v))}
        />
        {t.each_s.most > 0 && (
          <Stepper
            label={`${t.name}, seconds each`}
            value={eachOf(s, t)}
            unit="s each"
            by={stepOf("seconds", t.each_s.most)}
            bounds={t.each_s}
            onChange={(v) => onChange(withEach(s, t, v))}
          />
        )}
        <Button aria-label={`Step ${nth + 1} up`} isDisabled={nth === 0} onPress={() => onMove(nth, nth - 1)}>
          ↑
        </Button>
        <Button aria-label={`Step ${nth + 1} down`} isDisabled={last} onPress={() => onMove(nth, nth + 1)}>
          ↓
        </Button>
        <Button aria-expanded={more} onPress={() => setMore(!more)}>
          More
        </Button>
        <Button aria-label={`Remove step ${nth + 1}`} onPress={onDrop}>
          Remove
        </Button>
      </Row>
      {wrong && (
        <Said role="alert" $tone="stop" $small>
          {wrong}
        </Said>
      )}
      {more && <More s={s} t={t} places={places} onChange={onChange} />}
    </Line>
  );
}

/** Place, contact, position, importance and what is said to the client. */
function More({ s, t, places, onChange }: MoreProps) {
  const set = (own: Partial<Step>) => onChange({ ...s, ...own });
  return (
    <>
      <p className="quiet">{t.how}</p>
      <Row $wrap $gap={3} $align="end">
        <Search
          label="Where"
          none="Choose a place"
          value={s.where}
          options={places.all}
          describe={places.name}
          onPick={(where) => where && set({ where })}
        />
        {t.contacts.length > 0 && (
          <Pick
            label="Contact"
            none="The usual one"
            value={s.contact}
            options={t.contacts}
            describe={(c) => sentence(plain(c))}
            onPick={(contact) => set({ contact })}
          />
        )}
        <Pick
          label="Client is"
          none="As before"
          value={s.position}
          options={positions}
          describe={(p) => sentence(positionName(p))}
          onPick={(position) => set({ position })}
        />
      </Row>
      <Choice
        label="Importance, 5 is given up last"
        value={s.importance ?? 3}
        options={[1, 2, 3, 4, 5]}
        onChoose={(importance) => set({ importance })}
      />
      <Text
        label="Said to the client"
        value={s.say ?? ""}
        maxLength={300}
        onChange={(say) => set({ say: say || undefined })}
      />
    </>
  );
}

interface MoreProps {
  s: Step;
  t: Technique;
  places: Places;
  onChange: (s: Step) => void;
}
