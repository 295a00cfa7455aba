// A hold that nobody attended: its time stands at the last sign of life, and one says
// whether it ended there.
import { styled } from "styled-components";
import { Key } from "../../parts/controls";

const Answers = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 320px));
  gap: 14px;
  > * {
    min-height: 92px;
    font-size: 22px;
  }
`;

export const endsAt = (pressed: string) => `End at ${pressed}`;

interface Props {
  /** Time of pressure, as on a clock. */
  after: string;
  onEnd: () => void;
  onGoOn: () => void;
}

export function Alone({ after, onEnd, onGoOn }: Props) {
  return (
    <div className="say" data-alone>
      <div className="do" data-tone="ease" role="alert">
        Nobody attended this hold after {after}.
      </div>
      <div className="ask">Time stands there. Did it end then?</div>
      <Answers>
        <Key $tone="go" onPress={onEnd}>
          {endsAt(after)}
        </Key>
        <Key onPress={onGoOn}>Go on, with a new contact</Key>
      </Answers>
    </div>
  );
}
