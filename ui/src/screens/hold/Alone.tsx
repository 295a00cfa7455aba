// A hold that nobody attended: its time stands at the last sign of life, and one says
// whether it ended there.
import { Key } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { clock } from "../../parts/words";

interface Props {
  /** ms from the start. */
  since: number;
  onEnd: () => void;
  onGoOn: () => void;
}

export function Alone({ since, onEnd, onGoOn }: Props) {
  const at = clock(since / 1000);
  return (
    <div className="say" data-alone>
      <div className="do" data-tone="ease" role="alert">
        Nobody attended this hold after {at}.
      </div>
      <div className="ask">Time stands there. Did it end then?</div>
      <Row $gap={4} $wrap>
        <Key $tone="go" onPress={onEnd}>
          End at {at}
        </Key>
        <Key onPress={onGoOn}>Go on, with a new contact</Key>
      </Row>
    </div>
  );
}
