// Between two holds: where to go now, by name and with the reason.
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useAskVisit } from "../../core/useAsk";
import type { LiveVisit } from "../../core/useVisit";
import { pointName } from "../visit/pointWords";
import { Key } from "../../parts/controls";
import { phone } from "../../theme";

const List = styled.div`
  display: grid;
  gap: 8px;
  align-content: start;
  overflow: auto;
  min-height: 0;
  .to {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 14px;
    align-items: center;
    text-align: left;
    min-height: 64px;
    padding: 8px 18px;
    font-size: 22px;
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
      grid-template-columns: minmax(0, 1fr);
      gap: 2px;
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
  const name = (point: string) => {
    const p = visit.state.points.find((x) => x.point === point);
    return p ? pointName(visit.core, p) : "";
  };
  const id = visit.open.visit.id;
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
        <Key key={a.point} className="to" onPress={() => go(`/visits/${id}?step=press&point=${a.point}`)}>
          {name(a.point)}
          <span>{a.why}</span>
        </Key>
      ))}
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
