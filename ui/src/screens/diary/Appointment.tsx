// One appointment: moved, cancelled, missed, or begun.
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, Card, ErrorPanel } from "../../parts/controls";
import { Row, Said } from "../../parts/layout";
import { Clashes } from "./Clashes";
import { ForClient } from "./ForClient";
import { useRebooking } from "./useRebooking";
import { When } from "./When";
import { may } from "../../rights";
import { Receipts } from "../receipts/Receipts";

interface Props {
  visit: Schemas["Visit"];
  diary: Schemas["Diary"];
  me: Schemas["Me"];
  onClose: () => void;
}

export function Appointment({ visit: v, diary, me, onClose }: Props) {
  return (
    <Card $gap={3} data-appointment={v.status}>
      <Row $align="start">
        <h2>{v.name}</h2>
        <Button onPress={onClose}>Close</Button>
      </Row>
      <Said className="quiet">
        {v.status === "cancelled" ? "Cancelled. " : v.status === "no-show" ? "No-show. " : ""}
        {v.opened_at ? "Already started – can't be moved " : ""}With {v.therapist}.
      </Said>
      {may(me, "open-visit") && (
        <Row $gap={3}>
          <Link to={`/visits/${v.id}`}>{v.opened_at ? "Go to the visit" : "Open the visit"}</Link>
          <Link to={`/clients/${v.client}`}>Client</Link>
        </Row>
      )}
      {v.status === "booked" && !v.closed_at && <ForClient visit={v.id} />}
      {v.opened_at && v.status === "booked" && <Receipts visit={v.id} />}
      {!v.opened_at && <Change visit={v} diary={diary} me={me} />}
    </Card>
  );
}

function Change({ visit: v, diary, me }: Omit<Props, "onClose">) {
  const { slot, set, clashes, error, rebook, cancelSeries } = useRebooking(v, me);
  const move = v.status === "booked" ? "Move it" : "Book it again";
  return (
    <>
      <When slot={slot} diary={diary} set={set} />
      <Clashes list={clashes} />
      {error && <ErrorPanel error={error} />}
      <Row $wrap>
        <Button $kind="main" onPress={() => void rebook("booked")}>
          {clashes.length > 0 ? "Move it anyway" : move}
        </Button>
        {v.status === "booked" && (
          <>
            <Button onPress={() => void rebook("cancelled")}>Cancel it</Button>
            <Button onPress={() => void rebook("no-show")}>No-show</Button>
            {v.series && <Button onPress={() => void cancelSeries()}>Cancel this and the later ones</Button>}
          </>
        )}
      </Row>
    </>
  );
}
