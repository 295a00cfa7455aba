// What is felt at a point, by a touch each. Nothing is preset.
import type { Schemas } from "../../../api/client";
import { gradeWord } from "../../../body/marks";
import type { LiveVisit } from "../../../core/useVisit";
import { Disclosed, Perhaps, Pick, Text } from "../../../parts/controls";
import { Columns, Row, Stack } from "../../../parts/layout";
import { movementName, plain, positionName } from "../../../parts/words";
import type { Chart } from "./chart";

interface Props {
  c: Chart;
  set: (over: Partial<Chart>) => void;
}

/** What decides the judgement. */
export function Deciding({ c, set }: Props) {
  const word = gradeWord(c.grade);
  return (
    <>
      <Row $gap={4} $wrap $align="start">
        <Perhaps
          label={`Tenderness${word ? `: ${word}` : ", 0 none – 4 can't bear touch"}`}
          value={c.grade}
          options={[0, 1, 2, 3, 4]}
          onChoose={(grade) => set({ grade })}
        />
        <Perhaps
          label="Taut band"
          value={c.taut_band}
          options={["yes", "no", "unsure"] as const}
          onChoose={(taut_band) => set({ taut_band })}
        />
      </Row>
      <Perhaps
        label="Is this the pain you came in with?"
        value={c.familiar}
        options={["yes", "partly", "no", "unknown"] as const}
        onChoose={(familiar) => set({ familiar })}
      />
    </>
  );
}

const yesNo = ["yes", "no"] as const;
const asWord = (v: boolean | undefined) => (v === undefined ? undefined : v ? "yes" : "no");
const asBool = (v: string | undefined) => (v === undefined ? undefined : v === "yes");

interface MoreProps extends Props {
  guide: Schemas["Guide"];
  visit: LiveVisit;
  side: Schemas["Side"];
}

/** What supports it, and how it was felt. */
export function More({ c, set, guide, visit, side }: MoreProps) {
  return (
    <Disclosed summary="Nodule, twitch, feel, skin, contact, movement, note">
      <Stack $gap={3}>
        <Perhaps
          label="Nodule"
          value={c.nodule}
          options={["none", "grain", "pea", "larger"] as const}
          onChoose={(nodule) => set({ nodule })}
        />
        <Row $gap={4} $wrap $align="start">
          <Perhaps
            label="Twitch"
            value={asWord(c.twitch)}
            options={yesNo}
            onChoose={(v) => set({ twitch: asBool(v) })}
          />
          <Perhaps
            label="Jumps"
            value={asWord(c.jump)}
            options={yesNo}
            onChoose={(v) => set({ jump: asBool(v) })}
          />
          <Perhaps
            label="Fibre direction checked"
            value={asWord(c.fibres_checked)}
            options={yesNo}
            onChoose={(v) => set({ fibres_checked: asBool(v) })}
          />
        </Row>
        <Perhaps
          label="Muscle feels"
          value={c.feel}
          options={["normal", "hypertonic", "ropey", "adhesed"] as const}
          onChoose={(feel) => set({ feel })}
        />
        <Perhaps
          label="Skin, by the back of the hand"
          value={c.skin}
          options={["same", "warmer", "cooler"] as const}
          onChoose={(skin) => set({ skin })}
        />
        <Columns $cols="repeat(auto-fit, minmax(200px, 1fr))" $gap={3} $align="start">
          <Perhaps
            label="Felt with"
            value={c.contact}
            options={guide.contacts}
            describe={plain}
            onChoose={(contact) => set({ contact })}
          />
          <Perhaps
            label="Client lies"
            value={c.position}
            options={guide.positions}
            describe={positionName}
            onChoose={(position) => set({ position })}
          />
        </Columns>
        <WhileMoving c={c} set={set} visit={visit} side={side} />
        <Text label="Note" value={c.note ?? ""} onChange={(note) => set({ note })} />
      </Stack>
    </Disclosed>
  );
}

/** Does pressing it change a painful movement? */
function WhileMoving({ c, set, visit, side }: Props & { visit: LiveVisit; side: Schemas["Side"] }) {
  const movements = visit.core.lists.movements.map((m) => m.movement);
  return (
    <>
      <Pick
        label="Does pressing it change a painful movement?"
        none="not tried"
        value={c.moves?.movement}
        options={movements}
        describe={movementName}
        onPick={(movement) =>
          set({ moves: movement && { movement, side, becomes: c.moves?.becomes ?? "same" } })
        }
      />
      {c.moves && (
        <Perhaps
          quiet
          label="While it is pressed the movement is"
          value={c.moves.becomes}
          options={["easier", "same", "harder"] as const}
          onChoose={(becomes) => c.moves && set({ moves: { ...c.moves, becomes: becomes ?? "same" } })}
        />
      )}
    </>
  );
}
