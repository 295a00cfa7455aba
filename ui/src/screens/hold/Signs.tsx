import { Key } from "../../parts/controls";
import { signKeys } from "./keys";
import type { Act } from "./useHold";

interface Props {
  /** What the widest key does now. */
  main?: { name: string };
  ended: boolean;
  /** Nothing can be stopped any more. */
  stopped: boolean;
  onPedal: () => void;
  act: Act;
}

/** The widest key, the signs, and stop. */
export function Signs({ main, ended, stopped, onPedal, act }: Props) {
  return (
    <div className="keys">
      <Key $tone="go" isDisabled={!ended && !main} onPress={onPedal}>
        {ended ? "Back to the visit" : (main?.name ?? "Flush")}
        <kbd>{ended ? "space" : "space · pedal"}</kbd>
      </Key>
      {signKeys.map((s) => (
        <Key key={s.name} $tone={s.tone} isDisabled={ended} onPress={() => act(s.event, s.value)}>
          {s.name}
          <kbd>{s.key.toUpperCase()}</kbd>
        </Key>
      ))}
      <Key className="stop" $tone="stop" isDisabled={stopped} onPress={() => act("client-stop")}>
        Stop<kbd>esc</kbd>
      </Key>
    </div>
  );
}
