// What is done next with the client on the table: always at the same place, at the lower
// edge, and large enough for a knuckle.
import { type ReactNode, useLayoutEffect, useRef } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button } from "../../parts/controls";
import { Said } from "../../parts/layout";
import { useRoomPrefs } from "../hold/roomPrefs";
import { useBeginSequence, useSuggested } from "../sequence/useBeginSequence";
import { listed } from "../../parts/words";
import { usePointWords } from "./pointWords";
import { useNextHold } from "./press/useNextHold";
import type { StepProps } from "./StepProps";

const Edge = styled.div`
  position: sticky;
  bottom: -16px;
  z-index: 2;
  margin-top: auto;
  padding: var(--s2) 0 16px;
  background: var(--paper);
  display: grid;
  > button {
    min-height: 72px;
    width: 100%;
    display: grid;
    align-content: center;
    gap: 2px;
    line-height: 1.25;
  }
  small {
    font-weight: 450;
  }
`;

interface Props {
  children: ReactNode;
  /** What goes with it, in a few words. */
  also?: string;
  /** The pedal does it too; where one searches, the pedal is the search's. */
  pedal?: boolean;
  onPress: () => void;
}

/** What takes a key itself keeps it. */
const taking =
  "input, textarea, select, button, a, [role=radio], [role=listbox], [role=option], [role=application]";

/** The pedal does what the key at the lower edge does: Page Down always, the others where nothing
 * else takes them. */
function usePedal(act: () => void, on: boolean) {
  const [{ pedal }] = useRoomPrefs();
  const latest = useRef(act);
  latest.current = act;
  useLayoutEffect(() => {
    if (!on) return;
    const down = (e: KeyboardEvent) => {
      if (!pedal.includes(e.key) || e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key !== "PageDown" && (e.target as Element).closest(taking)) return;
      e.preventDefault();
      latest.current();
    };
    addEventListener("keydown", down);
    return () => removeEventListener("keydown", down);
  }, [on, pedal]);
}

function MainAction({ children, also, pedal = false, onPress }: Props) {
  usePedal(onPress, pedal);
  return (
    <Edge data-main-action>
      <Button $kind="main" onPress={onPress}>
        <span>{children}</span>
        {also && <small>{also}</small>}
      </Button>
    </Edge>
  );
}

/** The hold that is next, where all that it needs is settled. */
export function NextHold({
  visit,
  me,
  wanted,
  pedal,
}: StepProps & { me: Schemas["Me"]; wanted?: string; pedal?: boolean }) {
  const { begin, refused, withWhat, first } = useNextHold(visit, me);
  const names = usePointWords(visit);
  const next = first(wanted);
  if (!next) return null;
  return (
    <>
      {refused && (
        <Said role="alert" $tone="stop">
          {refused}
        </Said>
      )}
      <MainAction pedal={pedal} also={withWhat(next)} onPress={() => begin(next)}>
        Begin the hold: {names.get(next)}
      </MainAction>
    </>
  );
}

/** After the recheck: the quiet end of the session, where it was not done yet, then the closing. */
export function ToClose({ visit, onClose }: StepProps & { onClose: () => void }) {
  const left = visit.state.recheck.filter((x) => !x.done).length;
  const also = left > 0 ? `${left} not looked at again` : undefined;
  const closing = useSuggested(visit, "close");
  const { begin, refused } = useBeginSequence(visit);
  if (!closing || refused)
    return (
      <MainAction pedal also={also} onPress={onClose}>
        Go on to closing
      </MainAction>
    );
  return (
    <>
      <Button onPress={onClose}>Go on to closing</Button>
      <MainAction
        pedal
        also={listed(`${Math.round(closing.laid.seconds / 60)} min`, also)}
        onPress={() => begin(closing)}
      >
        {closing.name}
      </MainAction>
    </>
  );
}
