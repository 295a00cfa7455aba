// What is done next with the client on the table: always at the same place, at the lower
// edge, and large enough for a knuckle.
import type { ReactNode } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button } from "../../parts/controls";
import { Said } from "../../parts/layout";
import { useBeginSequence, useSuggested } from "../sequence/useBeginSequence";
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
  onPress: () => void;
}

function MainAction({ children, also, onPress }: Props) {
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
export function NextHold({ visit, me, wanted }: StepProps & { me: Schemas["Me"]; wanted?: string }) {
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
      <MainAction also={withWhat(next)} onPress={() => begin(next)}>
        Begin the hold: {names.get(next)}
      </MainAction>
    </>
  );
}

/** After the recheck: the quiet end of the session, where it was not done yet, then the closing. */
export function ToClose({ visit, onClose }: StepProps & { onClose: () => void }) {
  const closing = useSuggested(visit, "close");
  const { begin, refused } = useBeginSequence(visit);
  if (!closing || refused) return <MainAction onPress={onClose}>Go on to closing</MainAction>;
  return (
    <>
      <Button onPress={onClose}>Go on to closing</Button>
      <MainAction also={`${Math.round(closing.laid.seconds / 60)} min`} onPress={() => begin(closing)}>
        {closing.name}
      </MainAction>
    </>
  );
}
