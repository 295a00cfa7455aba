// Between two holds: where to go now, by name and with the reason.
import { useState } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useAskVisit } from "../../core/useAsk";
import type { LiveVisit } from "../../core/useVisit";
import { usePointWords } from "../visit/pointWords";
import { choiceOf, missing } from "../visit/press/choice";
import { beginHold } from "../visit/press/useBegin";
import { useOffers } from "../visit/press/useOffers";
import { Key } from "../../parts/controls";
import { listed, plain, positionName } from "../../parts/words";
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

/** Begins the next hold by one touch, where all that it needs is settled; else the point is
 * opened at Press, where it is chosen. */
function useNextHold(visit: LiveVisit, me: Schemas["Me"]) {
  const go = useNavigate();
  const [refused, setRefused] = useState("");
  const offers = useOffers(visit);
  const { state, open } = visit;
  const offered = (id: string) => {
    const p = state.points.find((x) => x.point === id);
    const o = offers.find((x) => x.point === id);
    if (!p || !o?.ready || !o.protocol) return undefined;
    const choice = choiceOf(state.holds, p, o.protocol, o);
    const lacks = missing(choice, me.supervised, !!state.screening.limits.slack_or_broad);
    return lacks ? undefined : { p, protocol: o.protocol, choice };
  };
  const begin = async (id: string) => {
    const next = offered(id);
    if (!next) return go(`/visits/${open.visit.id}?step=press&point=${id}`);
    const begun = await beginHold(visit, next.p, next.protocol, next.choice, me.supervised);
    if ("aside" in begun) return setRefused(begun.aside);
    return go(`/visits/${open.visit.id}/hold/${begun.hold}`);
  };
  const withWhat = (id: string) => {
    const next = offered(id);
    if (!next) return "to be chosen";
    const { contact, position } = next.choice;
    return listed(plain(next.protocol), contact && plain(contact), position && positionName(position));
  };
  return { begin, refused, withWhat };
}
