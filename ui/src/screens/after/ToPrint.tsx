// The aftercare sheet of a visit, to be printed.
import { useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useAskVisit } from "../../core/useAsk";
import { type LiveVisit, useVisit } from "../../core/useVisit";
import { Button, Failed, Waiting } from "../../parts/controls";
import { longDay } from "../../parts/words";
import { useLetterhead } from "../../api/queries";
import { Sheet } from "./Sheet";

const Room = styled.main`
  min-height: 100%;
  padding: 22px 16px;
  background: var(--paper);
  .tools {
    max-width: 720px;
    margin: 0 auto 14px;
    display: flex;
    justify-content: space-between;
  }
  @media print {
    background: none;
    padding: 0;
    .tools {
      display: none;
    }
  }
`;

export default function ToPrint({ me }: { me: Schemas["Me"] }) {
  const { id = "" } = useParams();
  const { visit, error, retry } = useVisit(id, me);
  if (error && !visit) return <Failed error={error} onRetry={retry} />;
  if (!visit) return <Waiting>Writing the sheet…</Waiting>;
  return <OfVisit me={me} visit={visit} />;
}

function OfVisit({ me, visit }: { me: Schemas["Me"]; visit: LiveVisit }) {
  const { open } = visit;
  const sheet = useAskVisit(visit, "visit-aftercare", {});
  const letterhead = useLetterhead().data ?? { name: me.practice };
  if (!sheet) return <Waiting>Writing the sheet…</Waiting>;
  return (
    <Room>
      <div className="tools">
        <Button onPress={() => history.back()}>Back</Button>
        <Button $kind="main" onPress={() => print()}>
          Print
        </Button>
      </div>
      <Sheet
        practice={letterhead}
        emergency={me.emergency_number}
        day={longDay(new Date(open.visit.starts_at), me.time_zone)}
        sheet={sheet}
      />
    </Room>
  );
}
