// Between two holds: where to go now, by name and with the reason.
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useAskVisit } from "../../core/useAsk";
import type { LiveVisit } from "../../core/useVisit";
import { usePointWords } from "../visit/pointWords";
import { useBeginSequence, useSuggested } from "../sequence/useBeginSequence";
import { useNextHold } from "../visit/press/useNextHold";
import { Key } from "../../parts/controls";
import { phone } from "../../theme";

const List = styled.div`
  display: grid;
  gap: 8px;
  align-content: start;
  grid-auto-rows: max-content;
  overflow: auto;
  min-height: 0;
  .to {
    display: grid;
    gap: 2px;
    justify-items: start;
    align-content: center;
    text-align: left;
    height: auto;
    min-height: 56px;
    padding: 8px 18px;
    font-size: 22px;
    line-height: 1.2;
  }
  .to span {
    font-size: 17px;
    font-weight: 450;
    color: var(--ink-soft);
  }
  p {
    font-size: 17px;
    color: var(--ink-soft);
  }
  p b {
    color: var(--warn);
  }
  ${phone} {
    overflow: visible;
    .to {
      font-size: 19px;
    }
    .to span {
      font-size: 16px;
    }
  }
`;

interface Props {
  visit: LiveVisit;
  hold: Schemas["Hold"];
  me: Schemas["Me"];
}

export function Between({ visit, hold, me }: Props) {
  const go = useNavigate();
  const after = useAskVisit(visit, "hold-next", { hold: hold.id });
  const next = after?.next ?? [];
  const names = usePointWords(visit);
  const name = (point: string) => names.get(point) ?? "";
  const id = visit.open.visit.id;
  const { begin, refused, withWhat } = useNextHold(visit, me);
  const lengthen = useSuggested(visit, "lengthen");
  const sequence = useBeginSequence(visit);
  return (
    <List data-between>
      {visit.state.screen_again && (
        <>
          <p role="alert">
            <b>The client felt unwell.</b> Let them sit up slowly, stay with them, and ask the screening again
            before anything else is pressed. If it does not pass, or one of the first questions is yes:{" "}
            {me.emergency_number}.
          </p>
          <Key className="to" onPress={() => go(`/visits/${id}?step=screen`)}>
            Ask the screening again
            <span>Nothing is pressed before.</span>
          </Key>
        </>
      )}
      {next.map((a) => (
        <Key
          key={a.point}
          className="to"
          data-next={a.point}
          data-again={a.point === hold.point || undefined}
          onPress={() => begin(a.point)}
        >
          {name(a.point)}
          <span>
            {a.why.replace(/\.$/, "")} · {withWhat(a.point)}
          </span>
        </Key>
      ))}
      {refused && (
        <p role="alert">
          <b>{refused}</b>
        </p>
      )}
      {next.length > 0 && (
        <Key className="to" onPress={() => go(`/visits/${id}?step=press`)}>
          Choose otherwise
          <span>Another point, contact, position or protocol</span>
        </Key>
      )}
      {lengthen && hold.summary.outcome !== "stopped" && (
        <Key className="to" data-lengthen={lengthen.sequence} onPress={() => sequence.begin(lengthen)}>
          Lengthening: {lengthen.name.toLowerCase()}
          <span>
            {Math.round(lengthen.laid.seconds / 60)} min, {lengthen.laid.steps.length} steps
          </span>
        </Key>
      )}
      <Key className="to" onPress={() => go(`/visits/${id}?step=recheck`)}>
        Stretch and recheck
        <span>
          {next.length
            ? "End with broad strokes, never on a point."
            : hold.summary.outcome === "stopped"
              ? "Only if the client wants it; broad strokes, never on a point."
              : "All points done: stretch, broad strokes, recheck."}
        </span>
      </Key>
      {after?.closed.map((a) => (
        <p key={a.point}>
          <b>Not again today:</b> {name(a.point)}. {a.why}
        </p>
      ))}
    </List>
  );
}
